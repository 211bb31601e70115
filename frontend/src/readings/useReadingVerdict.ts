// What the core says of a figure before it is kept: the job is evaluated as if the reading stood in it.
import { watchDebounced } from '@vueuse/core'
import { ref, watch } from 'vue'

import { answer, api } from '../api/client'
import type { Evaluation, Finding, Reading, Step } from '../api/types'
import { useJob } from '../job/useJob'

const WAIT_MS = 120

export function useReadingVerdict(step: () => Step, reading: () => Reading | null) {
  const store = useJob()
  const findings = ref<Finding[]>([])
  let turn = 0

  async function ask(provisional: Reading): Promise<void> {
    const mine = ++turn
    const body = { ...store.judged!, readings: [...store.judged!.readings, { ...provisional, photo: '' }] }
    try {
      const evaluation = await answer<Evaluation>(api.POST('/api/v1/evaluate', { body }))
      if (mine === turn) findings.value = evaluation.findings.filter(concerns)
    } catch {
      // No verdict can be told now; keeping the reading says why, in full.
      if (mine === turn) findings.value = []
    }
  }
  function concerns(one: Finding): boolean {
    const here = step()
    return one.subject === here.subject && one.step === here.step
  }

  const figure = () => JSON.stringify({ ...reading(), taken_at: '' })
  watch(figure, () => {
    if (!reading()) findings.value = []
  })
  watchDebounced(
    figure,
    () => {
      const provisional = reading()
      if (provisional) void ask(provisional)
    },
    { debounce: WAIT_MS },
  )
  return findings
}
