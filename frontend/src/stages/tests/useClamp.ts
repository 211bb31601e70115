// What stands of the clamp of the charge point that is looked at.
import { computed } from 'vue'

import { useJob } from '../../job/useJob'

export function useClamp() {
  const store = useJob()
  const clamp = computed(() =>
    store.evaluation?.findings.find((one) => one.topics.includes('clamp') && one.subject === store.sentence?.circuit),
  )
  return { clamp }
}
