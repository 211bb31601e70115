// What pages that are gone left unsaved is taken up by the page that opens their job, one draft after the other.
import type { Ref } from 'vue'

import type { Job } from '../api/types'
import { hasOthersDrafts, LEFT_AFTER_MS, takeOverDraft, type Typed } from '../device/drafts'
import type { useSaving } from './useSaving'

interface Opened {
  id: Ref<number>
  job: Ref<Job | undefined>
  saving: Pick<ReturnType<typeof useSaving>, 'tookUp' | 'isSaved'>
  /** Evaluate what was taken up, and save it. */
  settle: () => Promise<unknown>
}

export function useLeftDrafts({ id, job, saving, settle }: Opened) {
  /** What pages that are gone left unsaved is saved now. */
  async function takeUpDrafts(first?: Typed): Promise<void> {
    for (let draft = first ?? (await takeOverDraft(id.value)); draft; draft = await takeOverDraft(id.value)) {
      saving.tookUp(draft)
      await settle()
      if (!saving.isSaved.value) return
    }
    if (await hasOthersDrafts(id.value)) lookAgain(id.value)
  }

  /** Another page's draft, let lie, was left by a page that is gone: this one takes it up as soon as it is idle. */
  function lookAgain(jobId: number): void {
    setTimeout(() => {
      if (jobId !== id.value || !job.value) return
      if (saving.isSaved.value) void takeUpDrafts()
      else lookAgain(jobId)
    }, LEFT_AFTER_MS)
  }

  return { takeUpDrafts }
}
