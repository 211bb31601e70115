// The photos of the job being worked on, read once for each job; those that wait on this device beside them.
import { computed, ref } from 'vue'

import { answer, api, asProblem } from '../../api/client'
import type { PhotoInfo, Stop } from '../../api/types'
import { useOutbox } from '../../device/outbox'

const jobId = ref(0)
const photos = ref<PhotoInfo[]>([])
const failed = ref('')
const outbox = useOutbox()

outbox.onArrived(({ entry, photo }) => {
  if (!photo || entry.job !== jobId.value || photos.value.some((one) => one.id === photo.id)) return
  photos.value = [...photos.value, photo]
})

async function list(id: number): Promise<void> {
  if (jobId.value !== id) photos.value = []
  jobId.value = id
  try {
    const found = await answer<{ photos: PhotoInfo[] }>(
      api.GET('/api/v1/jobs/{job_id}/photos', { params: { path: { job_id: id } } }),
    )
    if (jobId.value === id) photos.value = found.photos
    failed.value = ''
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}

/** Add each file; what is refused is told by its name, the others are kept. */
async function add(stop: Stop, files: File[]): Promise<void> {
  const refused: string[] = []
  for (const file of files) {
    try {
      const photo = { bytes: await file.arrayBuffer(), type: file.type, name: file.name, stop }
      await outbox.hand({ job: jobId.value, photo })
    } catch (error) {
      refused.push(`${file.name}: ${asProblem(error).detail}`)
    }
  }
  failed.value = refused.join(' ')
}

async function remove(photo: PhotoInfo): Promise<void> {
  try {
    await answer(
      api.DELETE('/api/v1/jobs/{job_id}/photos/{photo_id}', {
        params: { path: { job_id: jobId.value, photo_id: photo.id } },
      }),
    )
    photos.value = photos.value.filter((one) => one.id !== photo.id)
    failed.value = ''
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}

export function usePhotos(stop: () => Stop) {
  const waiting = computed(() =>
    outbox.waiting.value.filter((one) => one.job === jobId.value && one.photo?.stop === stop()),
  )
  return {
    photos: computed(() => photos.value.filter((one) => one.stop === stop())),
    waiting,
    failed,
    list,
    add,
    remove,
  }
}
