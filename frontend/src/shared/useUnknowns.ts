import { watchDebounced } from '@vueuse/core'
import { ref, watch } from 'vue'

import type { UnknownFact } from '../api/types'
import { useJob } from '../job/useJob'
import { useLooking } from './useLooking'

/** The unknown facts of the job by what they could upset; asked anew whenever the job was judged again. */
export function useUnknowns() {
  const store = useJob()
  const facts = ref<UnknownFact[]>([])
  const { soFar, found, failed, busy, look, stop } = useLooking('/api/v1/unknowns')
  const ask = () => void (store.judged && look(store.judged))
  watchDebounced(() => store.evaluation, ask, { debounce: 300, immediate: true })
  // Until the first of them is weighed anew, what was told of the job as it was a moment ago stands.
  watch(found, (now) => (facts.value = now ?? facts.value))
  return { facts, soFar, busy, failed, stop }
}

/** What an unknown fact could upset, in a few words; empty where every answer leaves the verdicts as they are. */
export function upsetWords(fact: UnknownFact | undefined): string {
  const titles = fact?.could_upset.length ? fact.could_upset : (fact?.could_ask ?? [])
  if (!titles.length) return ''
  const more = titles.length > 2 ? ` and ${titles.length - 2} more` : ''
  return `${fact!.could_upset.length ? 'could upset' : 'could raise'}: ${titles.slice(0, 2).join('; ')}${more}`
}
