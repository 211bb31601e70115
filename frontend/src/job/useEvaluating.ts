// What the core says of the job, as far as this stage shows it: only the newest document is asked about.
import { useDebounceFn } from '@vueuse/core'
import { computed, shallowRef, watch } from 'vue'

import { answer, api, asProblem } from '../api/client'
import { type Shows, shows, SHOWS } from '../api/shows'
import type { Evaluation, Job, Problem } from '../api/types'

interface Told {
  arrived: () => void
  /** Whether the rest of what was asked about can be asked about at once. */
  failed: (problem: Problem, of: Job) => boolean
}

/** Once the page is at rest for so long, the test steps are fetched ahead: they are worked through without network. */
const AHEAD_AFTER_MS = 2500

export function useEvaluating(job: () => Job | undefined, told: Told) {
  const evaluation = shallowRef<Evaluation>()
  const ahead = shallowRef<{ of: Job; evaluation: Evaluation }>()
  let evaluating = false
  let again = false
  let tellings = 0

  const ask = (of: Job, by: Shows) =>
    answer<Evaluation>(api.POST('/api/v1/evaluate', { body: of, headers: { [SHOWS]: by } }))

  /** Evaluate now; a change that comes meanwhile is asked about once more, whatever number of them came. */
  async function evaluateNewest(): Promise<void> {
    if (evaluating) {
      again = true
      return
    }
    evaluating = true
    do {
      again = false
      await once()
    } while (again)
    evaluating = false
  }

  async function once(): Promise<void> {
    const of = job()
    // Gone to another job, which brings its own answer.
    if (!of) return
    const before = tellings
    try {
      const found = await ask(of, shows.value)
      told.arrived()
      // Told meanwhile by another answer, such as a call's that was settled: this one is of a job before it.
      if (tellings === before) tell(of, found)
      else again = true
    } catch (error) {
      if (told.failed(asProblem(error), of)) again = true
    }
  }

  /** What is said of a document. What the tests were told last stays at hand, whatever is shown since. */
  function tell(of: Job, found: Evaluation): void {
    tellings++
    if (found.steps) ahead.value = { of, evaluation: found }
    evaluation.value = found
  }

  async function lookAhead(): Promise<void> {
    const of = job()
    if (!of || shows.value === 'tests' || ahead.value?.of === of) return
    const found = await ask(of, 'tests').catch(() => undefined)
    if (found) ahead.value = { of, evaluation: found }
  }
  watch(evaluation, useDebounceFn(lookAhead, AHEAD_AFTER_MS))
  watch(shows, (now) => {
    if (!job() || now === 'all') return
    if (now === 'tests' && ahead.value?.of === job()) evaluation.value = ahead.value?.evaluation
    void evaluateNewest()
  })

  /** The test steps as they were told last; undefined until they were. */
  const steps = computed(() => evaluation.value?.steps ?? ahead.value?.evaluation.steps ?? undefined)

  function forgetAhead(): void {
    ahead.value = undefined
  }

  return { evaluation, tell, evaluateNewest, toldSteps: steps, forgetAhead }
}
