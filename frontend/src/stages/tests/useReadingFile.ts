// A file of readings on its way in: read by the server with the columns said so far, kept when the person says so.
import { computed, ref } from 'vue'

import { answer, api, asProblem } from '../../api/client'
import type { JobState, ReadingLines, ReadingShape, StepKey } from '../../api/types'
import { useJob } from '../../job/useJob'

export function useReadingFile(by: () => string, instrument: () => string, why: () => string) {
  const store = useJob()
  const text = ref('')
  const takenAt = ref('')
  const read = ref<ReadingLines>()
  const columns = ref<string[]>([])
  const shape = ref<ReadingShape | null>(null)
  const failed = ref('')
  // What can be mapped: the file's own headings, also where it can't be read yet.
  const told = computed(() =>
    columns.value.length && shape.value ? { columns: columns.value, shape: shape.value } : null,
  )

  async function ask(): Promise<void> {
    failed.value = ''
    const params = { path: { job_id: store.id } }
    const body = {
      text: text.value,
      shape: shape.value,
      taken_by: by(),
      taken_at: takenAt.value,
      instrument: instrument(),
      again_because: why(),
    }
    try {
      read.value = await answer<ReadingLines>(api.POST('/api/v1/jobs/{job_id}/readings/file', { params, body }))
      shape.value = read.value.shape
      columns.value = [...read.value.columns]
    } catch (error) {
      read.value = undefined
      failed.value = asProblem(error).detail
    }
  }
  async function bring(file: string): Promise<void> {
    text.value = file
    takenAt.value = new Date().toISOString()
    shape.value = null
    columns.value = (file.split(/\r?\n/)[0] ?? '').split(/[,;\t]/).filter(Boolean)
    await store.flush()
    await ask()
    shape.value ??= { ...USUAL }
  }
  const mapColumn = (key: keyof ReadingShape, column: string) => {
    shape.value = { ...shape.value!, [key]: column }
    return ask()
  }
  function mapStep(words: string, step: StepKey): Promise<void> {
    const word = words.split(', ')[0]!
    shape.value = { ...shape.value!, steps: { ...shape.value!.steps, [word]: step } }
    return ask()
  }

  /** Keeps what is taken; whether that went well. */
  async function keep(): Promise<boolean> {
    const readings = read.value!.lines.flatMap((line) => (line.reading ? [line.reading] : []))
    const params = { path: { job_id: store.id } }
    const body = { readings, shape: shape.value, instrument: instrument() }
    try {
      await answer<JobState>(api.POST('/api/v1/jobs/{job_id}/readings/many', { params, body }))
      await store.load(store.id)
      return true
    } catch (error) {
      failed.value = asProblem(error).detail
      return false
    }
  }
  return { read, failed, told, ask, bring, mapStep, mapColumn, keep }
}

const USUAL: ReadingShape = {
  step_column: 'step',
  circuit_column: 'circuit',
  value_column: 'value',
  unit_column: 'unit',
  outcome_column: 'outcome',
  voltage_column: 'test_voltage_v',
  instrument_column: 'instrument',
  time_column: 'taken_at',
  steps: {},
}
