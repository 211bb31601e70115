// The page's own draft of the job: what stands of it on this device's disk.
import { computed, type Ref, shallowRef } from 'vue'

import type { Job } from '../api/types'
import { keepDraft, type Typed } from '../device/drafts'

export function useDraft(id: Ref<number>, job: Ref<Job | undefined>) {
  const onDevice = shallowRef<Job>()
  /** Whether what the screen shows outlives this page. */
  const isKept = computed(() => onDevice.value === job.value)

  function keep(typed: Typed): void {
    void keepDraft(id.value, typed).then((kept) => {
      if (job.value === typed.job) onDevice.value = kept ? typed.job : undefined
    })
  }

  function stands(draft: Job): void {
    onDevice.value = draft
  }
  return { isKept, keep, stands }
}
