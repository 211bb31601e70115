// Somebody looks for other ways on the server: the best so far, how far they are, and an end to it. Another question,
// an edit of the job, or leaving the page ends what is under way.
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'

import { answer, api, asProblem, ProblemError } from '../api/client'
import type { Alternative, ChoiceKey, CoachPlan, Job, Reach, Remedy, SearchResult, UnknownFact } from '../api/types'
import { useJob } from '../job/useJob'

interface OfPoint {
  job: Job
  charge_point: string
}
export interface Looked {
  '/api/v1/search': { asked: OfPoint; found: SearchResult }
  '/api/v1/reach': { asked: OfPoint; found: Reach[] }
  '/api/v1/unknowns': { asked: Job; found: UnknownFact[] }
  '/api/v1/remedies': { asked: { job: Job; finding: string }; found: Remedy[] }
  '/api/v1/alternatives': { asked: { job: Job; circuit: string; choice: ChoiceKey }; found: Alternative[] }
  '/api/v1/tests/order': { asked: Job; found: CoachPlan }
}
export type LookingPath = keyof Looked

export interface SoFar<F> {
  ticket: string
  state: 'waits' | 'goes_on' | 'finished' | 'stopped'
  tried: number
  of: number
  found: F | null
}

const ASKED_EVERY_MS = 300
const OUTDATED = 410
const hasEnded = (one: SoFar<unknown>) => one.state === 'finished' || one.state === 'stopped'
const pause = () => new Promise((done) => setTimeout(done, ASKED_EVERY_MS))

async function askAgain<F>(path: LookingPath, soFar: SoFar<F>): Promise<SoFar<F>> {
  try {
    const params = { path: { ticket: soFar.ticket } }
    return await answer<SoFar<F>>(api.GET(`${path}/{ticket}` as '/api/v1/search/{ticket}', { params }))
  } catch (error) {
    // A page that was hidden for long asks again for what was ended meanwhile: what it has stays.
    if (error instanceof ProblemError && error.problem.status === OUTDATED) return { ...soFar, state: 'stopped' }
    throw error
  }
}

function stopTicket(ticket: string): void {
  // Whoever can't be reached ends by itself once nobody asks.
  void api.DELETE('/api/v1/looking/{ticket}', { params: { path: { ticket } } }).catch(() => undefined)
}

/** `outlives` an edit: where it does not hang on every field of the job, whoever asks says when it ends. */
export function useLooking<P extends LookingPath>(path: P, how: { outlives?: boolean } = {}) {
  const store = useJob()
  const soFar = shallowRef<SoFar<Looked[P]['found']>>()
  const failed = ref('')
  const begun = ref(false)
  const about = ref('')
  let turn = 0

  const found = computed(() => soFar.value?.found ?? undefined)
  const busy = computed(() => begun.value && !(soFar.value && hasEnded(soFar.value)))
  const finished = computed(() => soFar.value?.state === 'finished')
  /** Whether the job is no longer the one that was asked about. */
  const stale = computed(() => begun.value && about.value !== JSON.stringify(store.job))

  const outOfDate = () => stale.value && !how.outlives

  async function look(body: Looked[P]['asked']): Promise<void> {
    end()
    const mine = ++turn
    begun.value = true
    about.value = JSON.stringify(store.job)
    try {
      let now = await answer<SoFar<Looked[P]['found']>>(api.POST(path as '/api/v1/search', { body: body as never }))
      while (mine === turn) {
        soFar.value = now
        if (hasEnded(now)) return
        // Edited before the first answer came: there was no ticket to end it by.
        if (outOfDate()) stop()
        await pause()
        if (mine === turn) now = await askAgain(path, now)
      }
      if (!hasEnded(now)) stopTicket(now.ticket)
    } catch (error) {
      if (mine !== turn) return
      failed.value = asProblem(error).detail
      begun.value = false
    }
  }
  /** End it as far as it is; what was found stays. */
  function stop(): void {
    if (busy.value && soFar.value) stopTicket(soFar.value.ticket)
  }
  /** End it, and forget what was found. */
  function end(): void {
    stop()
    turn++
    begun.value = false
    soFar.value = undefined
    failed.value = ''
  }
  watch(outOfDate, (now) => now && stop())
  onScopeDispose(end)
  return { soFar, found, failed, busy, finished, stale, look, stop, end }
}
