// One question for two fields, so that they can't contradict: whether an RCD stands before a board's ways, and which.
import { computed } from 'vue'

import type { Job } from '../../api/types'
import { useJob } from '../../job/useJob'
import { rcdWords, usualRcds } from './rcds'

type Rcd = NonNullable<Job['boards'][number]['front_rcd']>
export type FrontRcd = 'no' | 'not_seen' | Rcd

export function useFrontRcd(place: () => number) {
  const store = useJob()
  const board = computed(() => store.job!.boards[place()]!)
  const answers = computed<{ value: FrontRcd; words: string }[]>(() => [
    { value: 'no', words: 'none' },
    ...usualRcds(board.value.front_rcd).map((one) => ({ value: one, words: rcdWords(one) })),
    { value: 'not_seen', words: 'not seen yet' },
  ])
  const now = computed(() => board.value.front_rcd ?? (board.value.front_rcd_seen === 'no' ? 'no' : 'not_seen'))

  function answer(value: FrontRcd): void {
    const path = `boards.${place()}`
    store.changeAll([
      { field: `${path}.front_rcd_seen`, value: typeof value === 'string' ? value : 'yes' },
      { field: `${path}.front_rcd`, value: typeof value === 'string' ? null : value },
    ])
  }
  return { answers, now, answer }
}
