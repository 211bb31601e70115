// The test set that answers at a port of the server's machine, if there is one.
import { computed } from 'vue'

import { answer, api } from '../../api/client'
import type { FromTestSet, Step } from '../../api/types'
import { useJob } from '../../job/useJob'
import { useCatalogue } from '../../shared/useCatalogue'

export function useTestSet() {
  const store = useJob()
  const { catalogue } = useCatalogue()
  const hasSet = computed(() => catalogue.value?.test_set ?? false)

  async function readFromSet(step: Step): Promise<FromTestSet & { told: string }> {
    await store.flush()
    const params = { path: { job_id: store.id } }
    const body = { step: step.step, subject: step.subject }
    const shown = await answer<FromTestSet>(api.POST('/api/v1/jobs/{job_id}/test-set', { params, body }))
    return { ...shown, told: shown.outcome === 'wrong' ? `as ${shown.instrument} showed it` : '' }
  }
  return { hasSet, readFromSet }
}
