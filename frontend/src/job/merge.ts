// Two edits of one document put together: what only one side changed is taken from that side, the rest is asked.
import type { Difference, Job } from '../api/types'
import { valueAt, withValue } from '../shared/paths'

export interface Merged {
  /** What is stored, with what only this page changed on top. */
  job: Job
  /** Both changed these, to something else. */
  asked: Difference[]
}

const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other)

/** `base` is what both edits began from; `sent` what this page sent since: what stands of that is its own. */
export function merge(stored: Job, differences: Difference[], base?: Job, sent: Job[] = []): Merged {
  const asked: Difference[] = []
  let job = stored
  for (const one of differences) {
    const own = [base, ...sent].some((known) => known && same(valueAt(known, one.field), one.theirs))
    if (own) job = withValue(job, one.field, one.mine)
    else if (!base || !same(valueAt(base, one.field), one.mine)) asked.push(one)
  }
  return { job, asked }
}

/** How many fields two documents hold differently; a list that is longer in one of them counts once. */
export function changedFields(one: unknown, other: unknown): number {
  if (same(one, other)) return 0
  if (!isTree(one) || !isTree(other) || Array.isArray(one) !== Array.isArray(other)) return 1
  if (Array.isArray(one) && Array.isArray(other) && one.length !== other.length) return 1
  const keys = new Set([...Object.keys(one), ...Object.keys(other)])
  return [...keys].reduce((sum, key) => sum + changedFields(one[key], other[key]), 0)
}

const isTree = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null
