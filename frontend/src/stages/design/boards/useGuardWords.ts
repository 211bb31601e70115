// The caption of a guard in the tree: as the evaluation names it along the run, else by its kind.
import { computed } from 'vue'

import type { Guard } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { useCatalogue } from '../../../shared/useCatalogue'

export function useGuardWords() {
  const store = useJob()
  const { options } = useCatalogue()
  const views = computed(
    () => new Map(store.evaluation?.guards.flatMap((run) => run.guards.map((one) => [one.field, one] as const))),
  )
  /** Off every run nothing is derived for a guard; then its kind has to do. */
  function wordsOf(guard: Guard, field: string): string {
    return views.value.get(field)?.short ?? options('GuardKind').find((one) => one.value === guard.kind)?.words ?? ''
  }
  const viewAt = (field: string) => views.value.get(field)
  return { wordsOf, viewAt }
}
