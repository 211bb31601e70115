// One question for what stands in a board, so that they can't contradict: whether an RCD stands before its ways, and
// which. It is a guard of the incomer, or of the group that the new circuit leaves.
import { computed } from 'vue'

import type { Guard } from '../../api/types'
import { useJob } from '../../job/useJob'
import { blankGuard, useGuardActs } from '../useGuardActs'
import { rcdWords, usualRcds } from './rcds'

type Rcd = NonNullable<Guard['rcd']>
export type FrontRcd = 'no' | 'not_seen' | Rcd

export function useFrontRcd(place: () => number) {
  const store = useJob()
  const { freeId } = useGuardActs()
  const board = computed(() => store.job!.boards[place()]!)
  /** The group of this board that one of the job's circuits leaves, if one does. */
  const groupIndex = computed(() =>
    board.value.groups.findIndex((group) =>
      store.job!.circuits.some((one) => one.from_board === board.value.id && one.group === group.id),
    ),
  )
  const lists = computed(() => [
    { path: `boards.${place()}.incomer`, guards: board.value.incomer },
    ...(groupIndex.value < 0
      ? []
      : [
          {
            path: `boards.${place()}.groups.${groupIndex.value}.guards`,
            guards: board.value.groups[groupIndex.value]!.guards,
          },
        ]),
  ])
  const stands = computed(() => lists.value.flatMap((list) => list.guards).find((one) => one.kind === 'rccb'))
  const answers = computed<{ value: FrontRcd; words: string }[]>(() => [
    { value: 'no', words: 'none' },
    ...usualRcds(stands.value?.rcd ?? null).map((one) => ({ value: one, words: rcdWords(one) })),
    { value: 'not_seen', words: 'not seen yet' },
  ])
  const now = computed(() => stands.value?.rcd ?? (board.value.front_rcd_seen === 'no' ? 'no' : 'not_seen'))

  function answer(value: FrontRcd): void {
    const seen = typeof value === 'string' ? value : 'yes'
    const changes = lists.value
      .map((list, index) => ({ field: list.path, value: answered(list.guards, value, index) }))
      .filter((change, index) => JSON.stringify(change.value) !== JSON.stringify(lists.value[index]!.guards))
    store.changeAll([{ field: `boards.${place()}.front_rcd_seen`, value: seen }, ...changes])
  }
  /** The guards of a list with its RCCB answered: changed where it stands, put into the last list where none does. */
  function answered(guards: Guard[], value: FrontRcd, index: number): Guard[] {
    if (typeof value === 'string') return guards.filter((one) => one.kind !== 'rccb')
    if (stands.value) return guards.map((one) => (one.id === stands.value!.id ? { ...one, rcd: value } : one))
    if (index < lists.value.length - 1) return guards
    const fitted_with_this_job = board.value.fitted_with_this_job
    const guard = { ...blankGuard(freeId('front-rcd'), 'rccb'), rcd: value, fitted_with_this_job }
    return [...guards, guard]
  }
  return { answers, now, answer }
}
