// Which instrument takes a step: the one that took the last of its function, else the only one that can.
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import type { Step } from '../../api/types'
import { useJob } from '../../job/useJob'

const lastOf = useLocalStorage<Partial<Record<Step['function'], string>>>('fulmen-instruments', {})

export function useInstrument(step: () => Step) {
  const store = useJob()
  const instrument = computed({
    get() {
      const register = store.job?.testing.instruments ?? []
      const last = lastOf.value[step().function]
      if (last && register.some((one) => one.name === last)) return last
      const able = register.filter((one) => one.functions.includes(step().function))
      return able.length === 1 ? able[0]!.name : ''
    },
    set(name: string) {
      lastOf.value = { ...lastOf.value, [step().function]: name }
    },
  })
  return { instrument }
}
