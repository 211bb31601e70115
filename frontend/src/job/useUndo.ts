// What was applied at one press, and what takes it back at one press.
import { type Ref, ref } from 'vue'

import type { Job } from '../api/types'
import { valueAt } from '../shared/paths'

const MOST_KEPT = 20

export interface FieldChange {
  field: string
  value?: unknown
}

/** `enact` makes the changes; it is called for what is applied and for what is taken back. */
export function useUndo(job: Ref<Job | undefined>, enact: (changes: FieldChange[]) => void) {
  const applied = ref<{ words: string; back: FieldChange[] }[]>([])

  /** Apply changes that belong together at one press; they can be taken back at one press too. */
  function apply(words: string, changes: FieldChange[]): void {
    const back = changes.map(({ field }) => ({ field, value: valueAt(job.value, field) }))
    applied.value = [...applied.value, { words, back: back.reverse() }].slice(-MOST_KEPT)
    enact(changes)
  }

  /** Take back what was applied last. */
  function undo(): void {
    const last = applied.value.at(-1)
    if (!last) return
    applied.value = applied.value.slice(0, -1)
    enact(last.back)
  }

  /** What was applied before and holds one of these fields can't be taken back any more: it would undo this too. */
  function overtake(changes: FieldChange[]): void {
    const within = (one: FieldChange, other: FieldChange) => `${one.field}.`.startsWith(`${other.field}.`)
    const meets = (one: FieldChange) => changes.some((change) => within(one, change) || within(change, one))
    applied.value = applied.value.filter((entry) => !entry.back.some(meets))
  }

  function forget(): void {
    applied.value = []
  }

  return { applied, apply, undo, overtake, forget }
}
