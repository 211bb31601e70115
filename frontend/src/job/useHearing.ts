// What another tab of this browser sent is asked for until somebody answers: no page stays behind what it calls saved.
import { useTimeoutFn } from '@vueuse/core'
import { ref } from 'vue'

const TRY_AGAIN_MS = 5000

export function useHearing<T>(ask: () => Promise<T>, hear: (state: T) => void) {
  const isBehind = ref(false)
  const again = useTimeoutFn(() => void catchUp(), TRY_AGAIN_MS, { immediate: false })

  async function catchUp(): Promise<void> {
    isBehind.value = true
    const heard = await ask().catch(() => undefined)
    if (heard === undefined) return void again.start()
    isBehind.value = false
    hear(heard)
  }
  return { isBehind, catchUp }
}
