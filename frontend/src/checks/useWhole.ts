// All of a finding: what is open came whole, what is settled is asked for once its row is opened.
import { computed, ref, shallowRef, watch } from 'vue'

import { answer, api, asProblem } from '../api/client'
import type { Finding, Settled } from '../api/types'
import { useJob } from '../job/useJob'

export function useWhole(finding: () => Finding | Settled, opened: () => boolean) {
  const store = useJob()
  const told = shallowRef<Finding>()
  const failed = ref('')
  let turn = 0

  const own = () => {
    const one = finding()
    return 'detail' in one ? one : undefined
  }

  async function ask(key: string): Promise<void> {
    const mine = ++turn
    failed.value = ''
    try {
      const asked = api.POST('/api/v1/finding', { body: { job: store.judged!, finding: key } })
      const found = await answer<{ finding: Finding }>(asked)
      if (mine === turn) told.value = found.finding
    } catch (error) {
      if (mine === turn) failed.value = asProblem(error).detail
    }
  }
  // The rows are told anew with every answer: so is what stands open.
  watch(
    () => [opened(), finding()] as const,
    ([isOpened, one]) => {
      if (isOpened && !own()) void ask(one.key)
    },
    { immediate: true },
  )

  return { whole: computed(() => own() ?? told.value), failed }
}
