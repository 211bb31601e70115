// The job being worked on: every change is evaluated at once, saved as you go, and can be taken back.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import { answer, api } from '../api/client'
import type { Job, JobState } from '../api/types'
import { deviceReady } from '../device/database'
import { takeOverDraft } from '../device/drafts'
import type { Entry } from '../device/entries'
import { useOutbox } from '../device/outbox'
import { withWaiting } from '../readings/waiting'
import { withLikes } from '../shared/likeUnits'
import { withValue } from '../shared/paths'
import { seenBy } from '../shared/unseen'
import { useActs } from './useActs'
import { useEvaluating } from './useEvaluating'
import { useFieldErrors } from './useFieldErrors'
import { useHearing } from './useHearing'
import { useLeftDrafts } from './useLeftDrafts'
import { usePoint } from './usePoint'
import { useSaving } from './useSaving'
import { type FieldChange, useUndo } from './useUndo'

export type { FieldChange } from './useUndo'

/** What calls of their own append to a job; an edit never touches it. */
const appended = ({ readings, letters, decisions }: Job) => ({ readings, letters, decisions })

export const useJob = defineStore('job', () => {
  const id = ref(0)
  const job = shallowRef<Job>()
  /** Fields that an older version stored with what can't be shown. */
  const cleaned = ref<readonly string[]>([])
  const saving = useSaving(id, job, take, () => void evaluateNewest())
  const { version, saveState, problem, conflict } = saving
  const outbox = useOutbox()
  /** Send what waits, if anything does. */
  const flush = () => Promise.all([saving.flush(), outbox.waiting.value.length ? outbox.send() : undefined])
  /** What was made on this device for this job and has not arrived. */
  const isOwn = (one: Entry) => one.job === id.value
  const hearing = useHearing(() => ask(id.value), hear)
  const entries = computed(() => outbox.waiting.value.filter(isOwn))
  /** Only while the server has exactly what the screen shows, readings and photos too. */
  const isSaved = computed(() => saving.isSaved.value && !entries.value.length && !hearing.isBehind.value)
  const isKept = computed(() => (saving.isSaved.value || saving.isKept.value) && outbox.isKept.value)
  const waiting = computed(() => saving.waiting.value + outbox.waiting.value.length)
  const judging = { arrived: saving.evaluated, failed: saving.notEvaluated }
  const sendable = () => saving.heldBack.sendable.value
  const { evaluation, tell, evaluateNewest, toldSteps, forgetAhead } = useEvaluating(sendable, judging)
  const deeds = useUndo(id, job, enact)
  const held = saving.heldBack.held
  const { errorAt } = useFieldErrors(held, problem)
  const { point, pointIndex, profile, sentence, faults, guards } = usePoint(job, evaluation)

  /** The test steps, with what was read here and has not arrived yet. */
  const steps = computed(() => withWaiting(toldSteps.value ?? [], outbox.left.value.filter(isOwn)))
  outbox.onArrived(async ({ entry, state }) => {
    if (entry.job !== id.value || !entry.reading) return
    if (state) hear(state)
    else await hearing.catchUp()
  })

  /** What the server did to the readings; an edit that is not saved yet stays on top. */
  function hear(state: JobState): void {
    if (state.id !== id.value || !job.value) return
    hearing.reached(state)
    if (saving.isSaved.value) return take(state)
    job.value = { ...job.value, ...appended(state.job) }
    saving.schedule()
    void evaluateNewest()
  }

  const ask = (jobId: number) =>
    answer<JobState>(api.GET('/api/v1/jobs/{job_id}', { params: { path: { job_id: jobId } } }))

  function take(state: JobState): void {
    hearing.reached(state)
    id.value = state.id
    job.value = saving.heldBack.onTop(state.job)
    tell(saving.heldBack.sendable.value!, state.evaluation)
    if (state.cleaned.length) cleaned.value = state.cleaned
    saving.settled(state)
  }

  const settleDraft = () => evaluateNewest().then(flush)
  const { takeUpDrafts } = useLeftDrafts({ id, job, saving, settle: settleDraft })

  async function load(jobId: number): Promise<void> {
    await flush()
    deeds.keep()
    job.value = undefined
    point.value = ''
    cleaned.value = []
    forgetAhead()
    saving.startAfresh()
    const state = await ask(jobId)
    await deviceReady
    // Looked for before the job is shown: a job with a draft is at no moment a saved one.
    const draft = await takeOverDraft(jobId)
    take(state)
    deeds.recall()
    await takeUpDrafts(draft)
  }

  /** Change one field; the answer to it moves the screen at once and is saved shortly after. */
  function change(path: string, value: unknown, words?: string): void {
    changeAll([{ field: path, value }], words)
  }

  /** Change some fields that belong together; `words` where no field on screen has a name for it. */
  function changeAll(changes: FieldChange[], words?: string): void {
    apply(words ?? '', seenBy(job.value, withLikes(job.value, changes)))
  }

  /** What somebody signs for in the document itself: it stays, and only another follows it. */
  function sign(words: string, changes: FieldChange[]): void {
    enact(changes)
    deeds.follow(words)
  }

  /** Make exactly these changes, in one step that can be taken back. */
  function apply(words: string, changes: FieldChange[]): void {
    deeds.remember(changes, words)
    enact(changes)
  }

  function enact(changes: FieldChange[]): void {
    if (!job.value) return
    job.value = changes.reduce((document, one) => withValue(document, one.field, one.value), job.value)
    saving.edited()
    void evaluateNewest()
  }

  /** Settle a conflict: these fields keep what was entered here, the others what is saved. */
  function resolveConflict(mine: readonly string[]): void {
    saving.settleConflict(mine)
  }

  /** Take back what is not saved yet: the job as it is stored. */
  async function takeBack(): Promise<void> {
    saving.letGo()
    await load(id.value)
  }

  /** Something the server does to the stored job, such as keeping a letter: what waits is saved first. */
  async function act(words: string, ask: (headers: { 'If-Match': string }) => Promise<JobState>): Promise<void> {
    await flush()
    if (saveState.value !== 'saved') {
      throw new Error('Your last entry is not saved. Correct it, then try again.')
    }
    const state = await ask({ 'If-Match': String(version.value) })
    deeds.follow(words)
    // Typed meanwhile: its own save goes against the version it was typed on, and a conflict shows both sides.
    if (saveState.value === 'saved') return take(state)
    if (job.value) job.value = { ...job.value, ...appended(state.job) }
  }

  const { takeReading, settleCall, issue } = useActs({
    id,
    version,
    job,
    toldSteps,
    isSaved,
    flush,
    act,
    load,
    follow: deeds.follow,
  })

  return {
    id,
    version,
    revision: hearing.revision,
    job,
    evaluation,
    saveState,
    isSaved,
    isKept,
    waiting,
    held,
    judged: saving.heldBack.sendable,
    stored: saving.stored,
    isAway: outbox.isAway,
    steps,
    toldSteps,
    problem,
    conflict,
    cleaned,
    errorAt,
    point,
    pointIndex,
    profile,
    sentence,
    faults,
    guards,
    done: deeds.past,
    undone: deeds.undone,
    toldOf: deeds.told,
    load,
    catchUp: () => hearing.catchUp(),
    change,
    changeAll,
    apply,
    sign,
    undo: deeds.undo,
    redo: deeds.redo,
    rememberDone: deeds.keep,
    flush,
    takeBack,
    resolveConflict,
    takeReading,
    settleCall,
    act,
    issue,
  }
})
