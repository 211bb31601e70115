// Who else is at this job, on another phone: asked ever again, so that each sees the other's readings and open step.
import { useIntervalFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { answer, api } from '../../api/client'
import type { JobNow, OtherHere, Step } from '../../api/types'
import { newKey } from '../../device/entries'
import { useJob } from '../../job/useJob'
import { usePerson } from '../../shared/usePerson'

const EVERY_MS = 1500
/** An answer that takes longer comes too late: the next one is asked for. */
const PATIENCE_MS = 4000
/** This page, for as long as it is open. */
const device = newKey()
  .toLowerCase()
  .replace(/[^a-z0-9-]/g, '')
  .slice(0, 40)
const others = ref<OtherHere[]>([])
/** Whose figure is written down here: somebody at the other end, who calls it out; empty for one's own. */
const readBy = ref('')

export function useBeside() {
  return { others, readBy }
}

/** Ask while the tests are shown. */
export function useAskingBeside(open: () => Step | undefined) {
  const store = useJob()
  const person = usePerson()
  let asking = false
  const here = computed(() => ({ step: open()?.step ?? null, subject: open()?.subject ?? null }))

  async function ask(): Promise<void> {
    if (asking || !store.job || store.isAway || document.visibilityState === 'hidden') return
    asking = true
    const params = { path: { job_id: store.id } }
    const body = { device, name: person.name.value.trim(), ...here.value }
    try {
      const now = await answer<JobNow>(
        api.POST('/api/v1/jobs/{job_id}/now', { params, body, signal: AbortSignal.timeout(PATIENCE_MS) }),
      )
      others.value = now.others
      if (readBy.value && !now.others.some((one) => one.name === readBy.value)) readBy.value = ''
      if (now.revision > store.revision) await store.catchUp()
    } catch {
      // Who can't be asked is not there; what was typed goes its own way, and says so.
      others.value = []
    } finally {
      asking = false
    }
  }
  useIntervalFn(() => void ask(), EVERY_MS, { immediateCallback: true })
  watch(here, () => void ask())
}
