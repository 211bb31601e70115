// The simulated day of a job, with the load limit that is being tried.
import { computed } from 'vue'

import { answer, api } from '../../../api/client'
import type { Job, SupplyDay } from '../../../api/types'
import { useAsked } from '../../../shared/useAsked'

export function useSupplyDay(job: () => Job | undefined, limit: () => number | null) {
  const tried = computed(() => {
    const now = job()
    return now && { ...now, supply: { ...now.supply, load_limit_a: limit() } }
  })
  const { found: day, failed } = useAsked(
    () => tried.value,
    (body) => answer<SupplyDay>(api.POST('/api/v1/supply-day', { body })),
  )
  return { day, failed }
}
