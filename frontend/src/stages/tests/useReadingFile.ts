// A file of readings on its way in: read by the server with what was said of it so far, kept when the person says so.
import { computed, ref } from 'vue'

import { answer, api, asProblem } from '../../api/client'
import type { JobState, ReadingLines, ReadingShape, StepKey } from '../../api/types'
import { useJob } from '../../job/useJob'

/** A file's bytes in base64, in pieces that no call is too long for. */
async function inBase64(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  let binary = ''
  for (let at = 0; at < bytes.length; at += 8192) binary += String.fromCharCode(...bytes.subarray(at, at + 8192))
  return btoa(binary)
}

export function useReadingFile(by: () => string, instrument: () => string, why: () => string) {
  const store = useJob()
  const data = ref('')
  const takenAt = ref('')
  const read = ref<ReadingLines>()
  const shape = ref<ReadingShape | null>(null)
  const failed = ref('')

  async function ask(): Promise<void> {
    failed.value = ''
    const params = { path: { job_id: store.id } }
    const body = {
      data: data.value,
      shape: shape.value,
      taken_by: by(),
      taken_at: takenAt.value,
      instrument: instrument(),
      again_because: why(),
    }
    try {
      read.value = await answer<ReadingLines>(api.POST('/api/v1/jobs/{job_id}/readings/file', { params, body }))
      shape.value = read.value.shape
    } catch (error) {
      read.value = undefined
      failed.value = asProblem(error).detail
    }
  }
  async function bring(file: Blob): Promise<void> {
    data.value = await inBase64(file)
    takenAt.value = new Date().toISOString()
    shape.value = null
    await store.flush()
    await ask()
  }
  /** Something was said of how the file lies: it is read again by that. */
  function say(said: Partial<ReadingShape>): Promise<void> {
    shape.value = { ...shape.value!, ...said }
    return ask()
  }
  const sayStep = (word: string, step: StepKey | null) => say({ steps: { ...shape.value!.steps, [word]: step } })
  const sayCircuit = (word: string, circuit: string) => say({ circuits: { ...shape.value!.circuits, [word]: circuit } })
  const sayTop = (unit: string, top: number) => say({ tops: { ...shape.value!.tops, [unit]: top } })
  const held = computed(() => read.value?.lines.flatMap((line) => (line.reading ? [line.reading] : [])) ?? [])

  /** Keeps what is taken; whether that went well. */
  async function keep(): Promise<boolean> {
    const params = { path: { job_id: store.id } }
    const body = { readings: held.value, shape: shape.value, instrument: instrument() }
    try {
      await answer<JobState>(api.POST('/api/v1/jobs/{job_id}/readings/many', { params, body }))
      await store.load(store.id)
      return true
    } catch (error) {
      failed.value = asProblem(error).detail
      return false
    }
  }
  return { read, shape, failed, held, ask, bring, say, sayStep, sayCircuit, sayTop, keep }
}
