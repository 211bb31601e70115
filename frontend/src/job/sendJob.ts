// One save on its way: the document, the version that it was typed on, and whose it is.
import { answer, api } from '../api/client'
import type { Job, JobState } from '../api/types'
import { usePerson } from '../shared/usePerson'

/** Whoever does not answer in so long is taken to be away; what arrived all the same is met as this page's own. */
const MOST_MS = 30_000
/** A page that goes can still send so much. */
const MOST_FAREWELL = 60_000

export function sendJob(id: number, version: number, job: Job, keepalive = false): Promise<JobState> {
  const person = encodeURIComponent(usePerson().name.value)
  const header = { 'If-Match': String(version), 'Fulmen-Person': person }
  const params = { path: { job_id: id }, header }
  const signal = keepalive ? undefined : AbortSignal.timeout(MOST_MS)
  return answer<JobState>(api.PUT('/api/v1/jobs/{job_id}', { params, body: job, keepalive, signal }))
}

/** The page goes: sent without waiting for an answer, where it is small enough for that. */
export function sendLast(id: number, version: number, job: Job): void {
  if (JSON.stringify(job).length <= MOST_FAREWELL) void sendJob(id, version, job, true).catch(() => undefined)
}
