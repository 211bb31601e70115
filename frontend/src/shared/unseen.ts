// What is reckoned with though nobody has seen it: it shows as open, and is seen once somebody answers it.
import type { Job } from '../api/types'
import type { FieldChange } from '../job/useUndo'

export const isUnseen = (job: Job | undefined, path: string) => job?.known_how[path] === 'not_seen'

/** Changes that somebody makes, with the marks of what is seen by them taken off. */
export function seenBy(job: Job | undefined, changes: FieldChange[]): FieldChange[] {
  const seen = changes.map((one) => one.field).filter((path) => isUnseen(job, path))
  if (!job || !seen.length || changes.some((one) => one.field === 'known_how')) return changes
  const known_how = Object.entries(job.known_how).filter(([path]) => !seen.includes(path))
  return [...changes, { field: 'known_how', value: Object.fromEntries(known_how) }]
}
