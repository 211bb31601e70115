// The job being worked on. Every change is evaluated at once and saved as you go.
//
// A change is kept in this browser until the server has it, so nothing typed is lost to a reload, a bad
// value or a lost connection. A conflict is shown with both sides; nothing is silently overwritten.
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { answer, api, asProblem } from '../api/client'
import type { Evaluation, Job, JobState, Problem, Reading, Signature } from '../api/types'
import { differences, valueAt, withValue } from '../shared/paths'
import { forgetDraft, keepDraft, keptDraft } from './draft'

const SAVE_AFTER_MS = 400
const TRY_AGAIN_MS = 5000

export interface FieldChange {
  field: string
  value?: unknown
}
export type SaveState = 'saved' | 'saving' | 'unsaved' | 'refused' | 'conflict'

export const useJob = defineStore('job', () => {
  const id = ref(0)
  const version = ref(0)
  const job = ref<Job>()
  const evaluation = ref<Evaluation>()
  const saveState = ref<SaveState>('saved')
  const problem = ref<Problem>()
  const conflict = ref<{ version: number; stored: Job }>()
  const fieldErrors = computed(() => Object.fromEntries((problem.value?.fields ?? []).map((f) => [f.field, f.message])))

  /** The error of a field, or of one within it. */
  function errorAt(path: string): string {
    const found = Object.entries(fieldErrors.value).find(([field]) => field === path || field.startsWith(`${path}.`))
    return found?.[1] ?? ''
  }

  // Which charge point's run is looked at; a job may hold several.
  const point = ref('')
  const pointIndex = computed(() => Math.max(0, job.value?.charge_points.findIndex((one) => one.id === point.value) ?? 0))
  const profile = computed(() => ofPoint(evaluation.value?.profiles))
  const sentence = computed(() => ofPoint(evaluation.value?.sentences))
  const faults = computed(() => ofPoint(evaluation.value?.faults))
  function ofPoint<T extends { charge_point: string }>(all: T[] | undefined): T | undefined {
    return all?.find((one) => one.charge_point === point.value) ?? all?.[0]
  }

  // What was applied at one press, and what takes it back.
  const applied = ref<{ words: string; back: FieldChange[] }[]>([])

  let edits = 0
  let evaluating = false
  let again = false
  let timer: ReturnType<typeof setTimeout> | undefined
  let sending: Promise<void> | undefined
  // Why the last save did not arrive: an evaluation that did arrive does not settle that.
  let unsent: Problem | undefined

  function take(state: JobState): void {
    id.value = state.id
    version.value = state.version
    job.value = state.job
    evaluation.value = state.evaluation
    saveState.value = 'saved'
    problem.value = undefined
  }

  async function load(jobId: number): Promise<void> {
    await flush()
    job.value = undefined
    problem.value = undefined
    conflict.value = undefined
    unsent = undefined
    point.value = ''
    applied.value = []
    const state = await answer<JobState>(api.GET('/api/v1/jobs/{job_id}', { params: { path: { job_id: jobId } } }))
    take(state)
    const draft = keptDraft(jobId)
    if (!draft) return
    job.value = draft.job
    edits += 1
    if (draft.version === state.version) await settle()
    else meetConflict(state.version, state.job)
  }

  /** Change one field; the answer to it moves the screen at once and is saved shortly after. */
  function change(path: string, value: unknown): void {
    changeAll([{ field: path, value }])
  }

  /** Apply changes that belong together at one press; they can be taken back at one press too. */
  function apply(words: string, changes: FieldChange[]): void {
    const back = changes.map(({ field }) => ({ field, value: valueAt(job.value, field) }))
    applied.value = [...applied.value, { words, back: back.reverse() }].slice(-20)
    enact(changes)
  }

  /** Take back what was applied last. */
  function undo(): void {
    const last = applied.value.at(-1)
    if (!last) return
    applied.value = applied.value.slice(0, -1)
    enact(last.back)
  }

  /** Change some fields. What was applied before and holds one of them can't be taken back any more: it would undo this too. */
  function changeAll(changes: FieldChange[]): void {
    const meets = (one: FieldChange, other: FieldChange) => `${one.field}.`.startsWith(`${other.field}.`) || `${other.field}.`.startsWith(`${one.field}.`)
    applied.value = applied.value.filter((entry) => !entry.back.some((back) => changes.some((change) => meets(back, change))))
    enact(changes)
  }

  function enact(changes: FieldChange[]): void {
    if (!job.value) return
    job.value = changes.reduce((document, one) => withValue(document, one.field, one.value), job.value)
    edits += 1
    saveState.value = 'unsaved'
    keepDraft(id.value, version.value, job.value)
    void settle()
  }

  /** Evaluate now and save soon. Only the newest document is asked about. */
  async function settle(): Promise<void> {
    schedule(SAVE_AFTER_MS)
    if (evaluating) {
      again = true
      return
    }
    evaluating = true
    do {
      again = false
      await evaluateOnce()
    } while (again)
    evaluating = false
  }

  async function evaluateOnce(): Promise<void> {
    try {
      evaluation.value = await answer<Evaluation>(api.POST('/api/v1/evaluate', { body: job.value! }))
      problem.value = unsent
      if (saveState.value === 'refused') saveState.value = 'unsaved'
    } catch (error) {
      problem.value = asProblem(error)
      if (problem.value.status === 422) saveState.value = 'refused'
    }
  }

  function schedule(after: number): void {
    clearTimeout(timer)
    timer = setTimeout(() => void save(), after)
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
      const state = await answer<JobState>(
        api.PUT('/api/v1/jobs/{job_id}', {
          params: { path: { job_id: id.value }, header: { 'If-Match': String(version.value) } },
          body: document,
        }),
      )
      version.value = state.version
      if (edits === saving) {
        take(state)
        forgetDraft(id.value)
      } else {
        saveState.value = 'unsaved'
        keepDraft(id.value, version.value, job.value!)
        schedule(SAVE_AFTER_MS)
      }
    } catch (error) {
      onSaveProblem(asProblem(error))
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

  /** Settle a conflict: mine goes on top of what is stored, or what is stored replaces mine. */
  async function resolveConflict(keepMine: boolean): Promise<void> {
    const met = conflict.value
    if (!met || !job.value) return
    conflict.value = undefined
    version.value = met.version
    const { readings, letters } = met.stored
    job.value = keepMine ? { ...job.value, readings, letters } : met.stored
    if (!keepMine) forgetDraft(id.value)
    edits += 1
    saveState.value = 'unsaved'
    await settle()
  }

  /** Take back what is not saved yet: the job as it is stored. */
  async function takeBack(): Promise<void> {
    clearTimeout(timer)
    forgetDraft(id.value)
    saveState.value = 'saved'
    await load(id.value)
  }

  /** Save what is waiting, if anything is. */
  async function flush(): Promise<void> {
    clearTimeout(timer)
    if (sending || saveState.value === 'unsaved') await save()
  }

  async function takeReading(reading: Reading): Promise<void> {
    await flush()
    const path = { job_id: id.value }
    const state = await answer<JobState>(api.POST('/api/v1/jobs/{job_id}/readings', { params: { path }, body: reading }))
    if (saveState.value === 'saved') take(state)
    else if (job.value) {
      job.value = { ...job.value, readings: state.job.readings }
      await settle()
    }
  }

  /** Something the server does to the stored job, such as keeping a letter: what waits is saved first. */
  async function act(ask: (headers: { 'If-Match': string }) => Promise<JobState>): Promise<void> {
    await flush()
    if (saveState.value !== 'saved') throw new Error('What you typed is not saved yet. Mend that first, then try again.')
    const state = await ask({ 'If-Match': String(version.value) })
    // Typed meanwhile: its own save goes against the version it was typed on, and a conflict shows both sides.
    if (saveState.value === 'saved') return take(state)
    if (job.value) job.value = { ...job.value, letters: state.job.letters }
  }

  async function issue(signatures: Signature[]): Promise<void> {
    await flush()
    const params = { path: { job_id: id.value }, header: { 'If-Match': String(version.value) } }
    await answer(api.POST('/api/v1/jobs/{job_id}/papers', { params, body: { signatures } }))
    await load(id.value)
  }

  return {
    id, version, job, evaluation, saveState, problem, conflict, errorAt,
    point, pointIndex, profile, sentence, faults, applied,
    load, change, changeAll, apply, undo, flush, takeBack, resolveConflict, takeReading, act, issue,
  }
})
