// How a section of a circuit is laid, as the core rates it: its method, and the methods that its place allows.
import { computed } from 'vue'

import { useJob } from '../../job/useJob'

export function useLaidSection(which: () => [circuit: string, place: number]) {
  const store = useJob()
  const section = computed(() => {
    const [circuit, place] = which()
    const every = store.evaluation?.profiles.flatMap((one) => one.sections) ?? []
    return every.find((one) => one.circuit === circuit && one.place === place)
  })
  return { section }
}
