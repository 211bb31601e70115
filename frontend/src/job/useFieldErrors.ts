// What is wrong with which field: what is held back here, and what the server refused.
import { computed, type Ref } from 'vue'

import type { Problem } from '../api/types'
import type { Held } from './useHeldBack'

export function useFieldErrors(held: Ref<readonly Held[]>, problem: Ref<Problem | undefined>) {
  const errors = computed(() =>
    Object.fromEntries([...held.value, ...(problem.value?.fields ?? [])].map((one) => [one.field, one.message])),
  )

  /** The error of a field, or of one within it. */
  function errorAt(path: string): string {
    const found = Object.entries(errors.value).find(([field]) => field === path || field.startsWith(`${path}.`))
    return found?.[1] ?? ''
  }
  return { errorAt }
}
