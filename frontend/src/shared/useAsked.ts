// An answer that follows a question: asked anew whenever the question changes; the newest answer wins.
import { ref, watch } from 'vue'

import { asProblem } from '../api/client'

export function useAsked<Q, A>(question: () => Q | undefined, ask: (question: Q) => Promise<A>) {
  const found = ref<A>()
  const failed = ref('')
  let turn = 0

  async function once(now: Q | undefined): Promise<void> {
    if (now === undefined) return
    const mine = ++turn
    try {
      const got = await ask(now)
      if (mine !== turn) return
      found.value = got
      failed.value = ''
    } catch (error) {
      if (mine === turn) failed.value = asProblem(error).detail
    }
  }
  watch(question, (now) => void once(now), { immediate: true, deep: true })
  return { found, failed }
}
