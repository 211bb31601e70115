// What the certificate still needs, asked for once the stage has its own answer: the stage never waits for it.
import { createSharedComposable, watchDebounced } from '@vueuse/core'
import { computed, shallowRef, watch } from 'vue'

import { answer, api } from '../api/client'
import type { StillToDo } from '../api/types'
import { useJob } from './useJob'

const AFTER_MS = 120

export type Stage = StillToDo['left'][number]['stage']

/** One list for whoever shows something of it. */
export const useNext = createSharedComposable(() => {
  const store = useJob()
  const told = shallowRef<StillToDo>()
  let asked = 0

  async function ask(): Promise<void> {
    const of = store.job && store.judged
    if (!of) return
    const [turn, job] = [++asked, store.id]
    const params = { path: { job_id: job } }
    const found = await answer<StillToDo>(api.POST('/api/v1/jobs/{job_id}/next', { params, body: of })).catch(
      () => undefined,
    )
    // An answer that was overtaken says nothing any more; without one, what was told last stands.
    if (found && turn === asked && job === store.id) told.value = found
  }
  watchDebounced(() => [store.evaluation, store.isSaved], ask, { debounce: AFTER_MS, immediate: true })
  watch(
    () => store.id,
    () => (told.value = undefined),
  )

  const first = computed(() => told.value?.things[0])
  const count = (fits: (one: StillToDo['left'][number]) => boolean) =>
    (told.value?.left ?? []).filter(fits).reduce((sum, one) => sum + one.count, 0)
  const leftOf = (stage: Stage) => count((one) => one.stage === stage)
  const leftAt = (nodes: readonly string[], stages: readonly string[]) =>
    count((one) => nodes.includes(one.node) && stages.includes(one.stage))
  const leftOfPart = (part: string) => count((one) => one.stage === 'survey' && one.part === part)
  return { told, first, leftOf, leftOfPart, leftAt }
})
