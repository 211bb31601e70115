// The householder's links of the job being worked on, and what arrived by them.
import { onMounted, ref } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { GivenAnswer, JobState, LinkInfo, MadeLink } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { usePhotos } from '../usePhotos'

export function useLinks() {
  const store = useJob()
  const photos = usePhotos(() => 'cut_out')
  const links = ref<LinkInfo[]>([])
  const made = ref<MadeLink>()
  const failed = ref('')
  const path = () => ({ job_id: store.id })

  /** Do something, then read anew what stands; what goes wrong is told. */
  async function attempt(what: () => Promise<unknown>): Promise<void> {
    try {
      await what()
      links.value = (
        await answer<{ links: LinkInfo[] }>(api.GET('/api/v1/jobs/{job_id}/links', { params: { path: path() } }))
      ).links
      await photos.list(store.id)
      failed.value = ''
    } catch (error) {
      failed.value = asProblem(error).detail
    }
  }
  const look = () => attempt(async () => undefined)
  const make = (made_by: string, days: number) =>
    attempt(async () => {
      made.value = await answer<MadeLink>(
        api.POST('/api/v1/jobs/{job_id}/links', { params: { path: path() }, body: { made_by, days } }),
      )
    })
  const withdraw = (link: LinkInfo) =>
    attempt(async () => {
      if (made.value?.id === link.id) made.value = undefined
      await answer(
        api.DELETE('/api/v1/jobs/{job_id}/links/{link_id}', { params: { path: { ...path(), link_id: link.id } } }),
      )
    })
  const accept = (given: GivenAnswer) =>
    attempt(() =>
      store.act('an answer of the householder’s, accepted', (header) =>
        answer<JobState>(
          api.POST('/api/v1/jobs/{job_id}/answers/{answer_id}/accepted', {
            params: { path: { ...path(), answer_id: given.id }, header },
          }),
        ),
      ),
    )
  const askAgain = (given: GivenAnswer, note: string) =>
    attempt(() =>
      answer(
        api.POST('/api/v1/jobs/{job_id}/answers/{answer_id}/asked-again', {
          params: { path: { ...path(), answer_id: given.id } },
          body: { note },
        }),
      ),
    )

  onMounted(look)
  return { links, made, failed, look, make, withdraw, accept, askAgain }
}
