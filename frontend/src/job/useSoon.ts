// Something done shortly after the last time it was asked for.
import { useTimeoutFn } from '@vueuse/core'
import { ref } from 'vue'

export function useSoon(act: () => void, usualMs: number) {
  const soon = ref(usualMs)
  const timer = useTimeoutFn(act, soon, { immediate: false })

  function schedule(afterMs = usualMs): void {
    soon.value = afterMs
    timer.start()
  }
  return { schedule, stop: timer.stop }
}
