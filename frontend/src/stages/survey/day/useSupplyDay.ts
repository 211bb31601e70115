// The simulated day of a job, asked anew whenever the job or the load limit tried changes; the newest answer wins.
import { ref, watch } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { Job, SupplyDay } from '../../../api/types'

export function useSupplyDay(job: () => Job | undefined, limit: () => number | null) {
  const day = ref<SupplyDay>()
  const failed = ref('')
  let turn = 0

  async function ask(): Promise<void> {
    const now = job()
    if (!now) return
    const mine = ++turn
    const body = { ...now, supply: { ...now.supply, load_limit_a: limit() } }
    try {
      const found = await answer<SupplyDay>(api.POST('/api/v1/supply-day', { body }))
      if (mine !== turn) return
      day.value = found
      failed.value = ''
    } catch (error) {
      if (mine === turn) failed.value = asProblem(error).detail
    }
  }
  watch([job, limit], () => void ask(), { immediate: true })
  return { day, failed }
}
