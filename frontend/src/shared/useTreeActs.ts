// Taking parts of the tree out, duplicating and moving them: the core says what can be done and makes the changes.
import { ref } from 'vue'

import { answer, api, asProblem } from '../api/client'
import type { Change, TreeAct } from '../api/types'
import { useJob } from '../job/useJob'

export type TreeActAsked = Pick<TreeAct, 'kind' | 'to'>

export function useTreeActs() {
  const store = useJob()
  const refused = ref('')

  /** Do it, in one step that can be taken back; true where it could be done. */
  async function act(node: string, asked: TreeActAsked, words: string): Promise<boolean> {
    refused.value = ''
    try {
      const body = { job: store.judged!, node, act: { ...asked, words: '' } }
      const { changes } = await answer<{ changes: Change[] }>(api.POST('/api/v1/tree/act', { body }))
      store.apply(words, changes)
      return true
    } catch (error) {
      refused.value = asProblem(error).detail
      return false
    }
  }
  return { act, refused }
}
