import { ref, watch } from 'vue'

import { answer, api, asProblem } from '../api/client'
import type { UnknownFact } from '../api/types'
import { useJob } from '../job/useJob'

/** The unknown facts of the job by what they could upset; asked anew whenever the job was judged again. */
export function useUnknowns() {
  const store = useJob()
  const facts = ref<UnknownFact[]>([])
  const failed = ref('')
  watch(
    () => store.evaluation,
    async () => {
      const job = store.judged
      if (!job) return
      try {
        const found = await answer<{ facts: UnknownFact[] }>(api.POST('/api/v1/unknowns', { body: job }))
        if (store.judged === job) facts.value = found.facts
        failed.value = ''
      } catch (error) {
        // The questions stand, without their order.
        failed.value = asProblem(error).detail
      }
    },
    { immediate: true },
  )
  return { facts, failed }
}

/** What an unknown fact could upset, in a few words; empty where every answer leaves the verdicts as they are. */
export function upsetWords(fact: UnknownFact | undefined): string {
  const titles = fact?.could_upset.length ? fact.could_upset : (fact?.could_ask ?? [])
  if (!titles.length) return ''
  const more = titles.length > 2 ? ` and ${titles.length - 2} more` : ''
  return `${fact!.could_upset.length ? 'could upset' : 'could raise'}: ${titles.slice(0, 2).join('; ')}${more}`
}
