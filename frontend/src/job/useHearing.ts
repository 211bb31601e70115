// What another tab or phone sent is asked for until somebody answers: no page stays behind what it calls saved.
import { useTimeoutFn } from '@vueuse/core'
import { ref } from 'vue'

const TRY_AGAIN_MS = 5000

export function useHearing<T extends { id: number; revision: number }>(
  ask: () => Promise<T>,
  hear: (state: T) => void,
) {
  const isBehind = ref(false)
  /** How far the store was when this job was last heard of: whatever happens to it there makes it another one. */
  const revision = ref(0)
  let of = 0
  const again = useTimeoutFn(() => void catchUp(), TRY_AGAIN_MS, { immediate: false })

  function reached(state: T): void {
    revision.value = state.id === of ? Math.max(revision.value, state.revision) : state.revision
    of = state.id
  }
  async function catchUp(mayBeOlder = false): Promise<void> {
    isBehind.value = true
    const heard = await ask().catch(() => undefined)
    if (heard === undefined) return void again.start()
    // Asked before something that this page has heard of since, and answered after it: asked once more. Older still, it
    // is what the store has: it was put back to a copy.
    if (!mayBeOlder && heard.id === of && heard.revision < revision.value) return catchUp(true)
    isBehind.value = false
    hear(heard)
  }
  return { isBehind, revision, reached, catchUp }
}
