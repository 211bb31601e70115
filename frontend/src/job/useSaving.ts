// Saving as you go. A change is kept in this browser until the server has it, so nothing typed is lost to a reload,
// a bad value or a lost connection. What two edits changed in different fields goes together; where both changed one
// field, both values are shown and each is settled by itself. Nothing is silently overwritten.
import { computed, type Ref, ref, shallowRef } from 'vue'

import { asProblem } from '../api/client'
import type { Job, JobState, Problem } from '../api/types'
import { forgetDraft, rememberSaved, rememberSent, type Typed } from '../device/drafts'
import { changedFields } from './merge'
import { sendJob, sendLast } from './sendJob'
import { useConflict } from './useConflict'
import { useDraft } from './useDraft'
import { useFarewell } from './useFarewell'
import { useHeldBack } from './useHeldBack'
import { useSoon } from './useSoon'

const SAVE_AFTER_MS = 400
const TRY_AGAIN_MS = 5000

/** `take` shows a job as the server has it; `look` is told that the document is another one. */
export function useSaving(
  id: Ref<number>,
  job: Ref<Job | undefined>,
  take: (state: JobState) => void,
  look: () => void,
) {
  const version = ref(0)
  const saveState = ref<'saved' | 'saving' | 'unsaved' | 'refused' | 'conflict'>('saved')
  const problem = ref<Problem>()
  // The document as the server has it at `version`, and one that is on its way there.
  const stored = shallowRef<Job>()
  let sent: Job[] = []
  const draft = useDraft(id, job)
  const heldBack = useHeldBack(job, stored)
  /** Only while the server has exactly what the screen shows. */
  const isSaved = computed(() => saveState.value === 'saved' && job.value === stored.value)
  /** How many fields wait for the server. */
  const waiting = computed(() => (isSaved.value ? 0 : changedFields(stored.value, job.value)))

  const { conflict, meet, settle: settleConflict, forget } = useConflict(goOnFrom)

  let edits = 0
  let sending: Promise<void> | undefined
  // Why the last save did not arrive: an evaluation that did arrive does not settle that.
  let unsent: Problem | undefined
  const { schedule, stop } = useSoon(() => void save(), SAVE_AFTER_MS)
  useFarewell(sayFarewell, () => void flush())

  /** The job as the server has it: nothing waits any more. */
  function settled(state: JobState): void {
    version.value = state.version
    stored.value = state.job
    sent = []
    saveState.value = 'saved'
    problem.value = undefined
  }

  function startAfresh(): void {
    problem.value = undefined
    heldBack.forget()
    forget()
    unsent = undefined
  }

  function keep(): void {
    draft.keep({ version: version.value, base: stored.value, sent, job: job.value! })
  }

  /** The job was changed: kept here at once, sent shortly after. */
  function edited(): void {
    edits += 1
    heldBack.edited()
    wait()
  }

  /** Kept here until it is sent, soon. */
  function wait(afterMs?: number): void {
    saveState.value = 'unsaved'
    keep()
    schedule(afterMs)
  }

  /** Kept in this browser by a page that is gone: it goes on from the document that it was typed on. */
  function tookUp(typed: Typed): void {
    edits += 1
    version.value = typed.version
    stored.value = typed.base
    sent = typed.sent ?? []
    job.value = typed.job
    draft.stands(typed.job)
    saveState.value = 'unsaved'
  }

  function evaluated(): void {
    problem.value = unsent
    // What is judged now may be saved now: without a save of its own it would wait for the next edit.
    if (saveState.value === 'refused') wait()
  }

  /** Whether the rest can be asked about without what was refused. */
  function notEvaluated(trouble: Problem, of: Job): boolean {
    if (trouble.status === 422 && heldBack.refused(trouble, of)) return true
    problem.value = trouble
    if (trouble.status === 422) saveState.value = 'refused'
    return false
  }

  /** Save; one save at a time, so that none goes out against a version that another is about to replace. */
  async function save(): Promise<void> {
    if (sending) {
      await sending
      return save()
    }
    if (!job.value || saveState.value === 'saved' || saveState.value === 'conflict') return
    sending = send(heldBack.sendable.value!)
    await sending
    sending = undefined
  }

  async function send(document: Job): Promise<void> {
    const saving = edits
    unsent = undefined
    saveState.value = 'saving'
    sent = rememberSent(sent, document)
    keep()
    try {
      arrived(await sendJob(id.value, version.value, document), saving === edits)
    } catch (error) {
      onSaveProblem(asProblem(error), document, saving === edits)
    }
  }

  /** The page goes: what waits is sent without waiting for an answer; the draft stays until the next page has one. */
  function sayFarewell(): void {
    const document = heldBack.sendable.value
    if (!document || !['unsaved', 'saving'].includes(saveState.value)) return
    sent = rememberSent(sent, document)
    keep()
    sendLast(id.value, version.value, document)
  }

  function arrived(state: JobState, newest: boolean): void {
    rememberSaved(id.value, state.version)
    if (newest) {
      take(state)
      return isSaved.value ? forgetDraft(id.value) : keep()
    }
    settled(state)
    wait()
  }

  function onSaveProblem(trouble: Problem, document: Job, newest: boolean): void {
    problem.value = trouble
    // Typed meanwhile: what differs is asked of what stands here now. Refused: the rest goes without what was.
    const goesOn = trouble.status === 409 ? !newest : trouble.status === 422 && heldBack.refused(trouble, document)
    if (goesOn) {
      problem.value = undefined
      wait(0)
    } else if (trouble.status === 409 && trouble.stored) {
      if (!meet(id.value, trouble, { stored: stored.value, sent })) saveState.value = 'conflict'
    } else if (trouble.status === 422) {
      saveState.value = 'refused'
    } else {
      unsent = trouble
      saveState.value = 'unsaved'
      schedule(TRY_AGAIN_MS)
    }
  }

  /** What was put together goes on top of what is stored; where that is the same, it is saved. */
  function goOnFrom(at: number, theirs: Job, merged: Job): void {
    problem.value = undefined
    version.value = at
    stored.value = theirs
    sent = []
    job.value = heldBack.onTop(merged)
    edits += 1
    look()
    if (job.value === theirs) {
      saveState.value = 'saved'
      return forgetDraft(id.value)
    }
    wait(0)
  }

  /** Let go of what is not saved yet. */
  function letGo(): void {
    stop()
    forgetDraft(id.value)
    saveState.value = 'saved'
  }

  /** Save what is waiting, if anything is. */
  async function flush(): Promise<void> {
    stop()
    if (sending || saveState.value === 'unsaved') await save()
  }

  return {
    version,
    saveState,
    isSaved,
    isKept: draft.isKept,
    waiting,
    heldBack,
    stored,
    problem,
    conflict,
    schedule,
    settled,
    startAfresh,
    edited,
    tookUp,
    evaluated,
    notEvaluated,
    settleConflict,
    letGo,
    flush,
  }
}
