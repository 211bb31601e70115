// What the core says of the job: only the newest document is asked about.
import { shallowRef } from 'vue'

import { answer, api, asProblem } from '../api/client'
import type { Evaluation, Job, Problem } from '../api/types'

interface Told {
  arrived: () => void
  /** Whether the rest can be asked about at once. */
  failed: (problem: Problem) => boolean
}

export function useEvaluating(job: () => Job | undefined, told: Told) {
  const evaluation = shallowRef<Evaluation>()
  let evaluating = false
  let again = false

  /** Evaluate now; a change that comes meanwhile is asked about once more, whatever number of them came. */
  async function evaluateNewest(): Promise<void> {
    if (evaluating) {
      again = true
      return
    }
    evaluating = true
    do {
      again = false
      await once()
    } while (again)
    evaluating = false
  }

  async function once(): Promise<void> {
    try {
      evaluation.value = await answer<Evaluation>(api.POST('/api/v1/evaluate', { body: job()! }))
      told.arrived()
    } catch (error) {
      if (told.failed(asProblem(error))) again = true
    }
  }

  return { evaluation, evaluateNewest }
}
