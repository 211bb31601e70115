// Saving as you go. A change is kept in this browser until the server has it, so nothing typed is lost to a reload,
// a bad value or a lost connection. A conflict is shown with both sides; nothing is silently overwritten.
import { useTimeoutFn } from '@vueuse/core'
import { type Ref, ref } from 'vue'

import { answer, api, asProblem } from '../api/client'
import type { Job, JobState, Problem } from '../api/types'
import { differences } from '../shared/paths'
import { forgetDraft, keepDraft } from './draft'

const SAVE_AFTER_MS = 400
const TRY_AGAIN_MS = 5000

export type SaveState = 'saved' | 'saving' | 'unsaved' | 'refused' | 'conflict'

/** `take` shows a job as the server has it. */
export function useSaving(id: Ref<number>, job: Ref<Job | undefined>, take: (state: JobState) => void) {
  const version = ref(0)
  const saveState = ref<SaveState>('saved')
  const problem = ref<Problem>()
  const conflict = ref<{ version: number; stored: Job }>()

  let edits = 0
  let sending: Promise<void> | undefined
  // Why the last save did not arrive: an evaluation that did arrive does not settle that.
  let unsent: Problem | undefined
  const soon = ref(SAVE_AFTER_MS)
  const timer = useTimeoutFn(() => void save(), soon, { immediate: false })

  function schedule(after = SAVE_AFTER_MS): void {
    soon.value = after
    timer.start()
  }

  /** The job as the server has it: nothing waits any more. */
  function settled(state: JobState): void {
    version.value = state.version
    saveState.value = 'saved'
    problem.value = undefined
  }

  function startAfresh(): void {
    problem.value = undefined
    conflict.value = undefined
    unsent = undefined
  }

  /** The job was changed: kept here at once, sent shortly after. */
  function edited(): void {
    edits += 1
    saveState.value = 'unsaved'
    keepDraft(id.value, version.value, job.value!)
    schedule()
  }

  /** Kept in this browser from an earlier visit: it goes on from the version it was typed on. */
  function tookUp(): void {
    edits += 1
  }

  function evaluated(): void {
    problem.value = unsent
    if (saveState.value === 'refused') saveState.value = 'unsaved'
  }

  function notEvaluated(trouble: Problem): void {
    problem.value = trouble
    if (trouble.status === 422) saveState.value = 'refused'
  }

  /** Save; one save at a time, so that none goes out against a version that another is about to replace. */
  async function save(): Promise<void> {
    if (sending) {
      await sending
      return save()
    }
    if (!job.value || saveState.value === 'saved' || saveState.value === 'conflict') return
    sending = send(job.value)
    await sending
    sending = undefined
  }

  async function send(document: Job): Promise<void> {
    const saving = edits
    unsent = undefined
    saveState.value = 'saving'
    try {
      const params = { path: { job_id: id.value }, header: { 'If-Match': String(version.value) } }
      arrived(await answer<JobState>(api.PUT('/api/v1/jobs/{job_id}', { params, body: document })), saving === edits)
    } catch (error) {
      onSaveProblem(asProblem(error))
    }
  }

  function arrived(state: JobState, newest: boolean): void {
    version.value = state.version
    if (newest) {
      take(state)
      forgetDraft(id.value)
    } else {
      saveState.value = 'unsaved'
      keepDraft(id.value, version.value, job.value!)
      schedule()
    }
  }

  function onSaveProblem(trouble: Problem): void {
    problem.value = trouble
    if (trouble.status === 409 && trouble.stored) {
      meetConflict(trouble.version!, trouble.stored)
    } else if (trouble.status === 422) {
      saveState.value = 'refused'
    } else {
      unsent = trouble
      saveState.value = 'unsaved'
      schedule(TRY_AGAIN_MS)
    }
  }

  function meetConflict(storedVersion: number, stored: Job): void {
    if (!differences({ ...job.value, readings: [], letters: [] }, { ...stored, readings: [], letters: [] }).length) {
      // The save had arrived, only its answer was lost.
      version.value = storedVersion
      job.value = stored
      saveState.value = 'saved'
      problem.value = undefined
      return forgetDraft(id.value)
    }
    conflict.value = { version: storedVersion, stored }
    saveState.value = 'conflict'
  }

  /** Settle a conflict: mine goes on top of what is stored, or what is stored replaces mine. False: there was none. */
  function settleConflict(keepMine: boolean): boolean {
    const met = conflict.value
    if (!met || !job.value) return false
    conflict.value = undefined
    version.value = met.version
    const { readings, letters } = met.stored
    job.value = keepMine ? { ...job.value, readings, letters } : met.stored
    if (!keepMine) forgetDraft(id.value)
    edits += 1
    saveState.value = 'unsaved'
    return true
  }

  /** Let go of what is not saved yet. */
  function letGo(): void {
    timer.stop()
    forgetDraft(id.value)
    saveState.value = 'saved'
  }

  /** Save what is waiting, if anything is. */
  async function flush(): Promise<void> {
    timer.stop()
    if (sending || saveState.value === 'unsaved') await save()
  }

  return {
    version,
    saveState,
    problem,
    conflict,
    schedule,
    settled,
    startAfresh,
    edited,
    tookUp,
    evaluated,
    notEvaluated,
    meetConflict,
    settleConflict,
    letGo,
    flush,
  }
}
