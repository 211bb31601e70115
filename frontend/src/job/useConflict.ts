// Saved meanwhile: by this page whose answer was lost, from another tab, or by somebody else.
import { shallowRef } from 'vue'

import type { Difference, Job, Problem } from '../api/types'
import { savedHere } from '../device/drafts'
import { withValue } from '../shared/paths'
import { merge } from './merge'

/** Fields that were changed here and elsewhere; `here` where that was another tab of this browser. */
export interface Conflict {
  version: number
  stored: Job
  merged: Job
  asked: Difference[]
  by: string
  at: string | null
  here: boolean
}

/** `goOn` puts a document on top of what is stored at a version. */
export function useConflict(goOn: (version: number, stored: Job, merged: Job) => void) {
  const conflict = shallowRef<Conflict>()

  /** Put both edits together; false where a field was changed on both sides, and somebody must choose. */
  function meet(id: number, trouble: Problem, known: { stored?: Job; sent: Job[] }): boolean {
    const [version, stored] = [trouble.version!, trouble.stored!]
    const { job: merged, asked } = merge(stored, trouble.differences, known.stored, known.sent)
    if (!asked.length) {
      goOn(version, stored, merged)
      return true
    }
    const here = savedHere(id, version)
    conflict.value = { version, stored, merged, asked, by: trouble.saved_by, at: trouble.saved_at, here }
    return false
  }

  /** Settle it field by field: `mine` are those that keep this page's value. */
  function settle(mine: readonly string[]): void {
    const met = conflict.value
    if (!met) return
    conflict.value = undefined
    const kept = met.asked.filter((one) => mine.includes(one.field))
    const chosen = kept.reduce((document, one) => withValue(document, one.field, one.mine), met.merged)
    goOn(met.version, met.stored, chosen)
  }

  function forget(): void {
    conflict.value = undefined
  }

  return { conflict, meet, settle, forget }
}
