<script setup lang="ts">
// One question for two fields, so that they can't contradict: whether an RCD stands in front, and which mark it bears.
import { computed } from 'vue'

import type { Job } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { rcd, rcdWords } from '../../../shared/rcds'
import TapGroup from '../../../shared/TapGroup.vue'
import WaveformMark from '../drawings/WaveformMark.vue'

type Rcd = NonNullable<Job['boards'][number]['front_rcd']>
type Answer = 'no' | 'not_seen' | Rcd

const store = useJob()
const board = computed(() => store.job!.boards[0]!)
const USUAL = [rcd('AC'), rcd('A'), rcd('F'), rcd('B'), rcd('A', 100, true), rcd('B', 100, true)]
const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other)
const answers = computed<{ value: Answer; words: string }[]>(() => {
  const own = board.value.front_rcd
  const rcds = own && !USUAL.some((one) => same(one, own)) ? [...USUAL, own] : USUAL
  return [
    { value: 'no', words: 'none' },
    ...rcds.map((one) => ({ value: one, words: rcdWords(one) })),
    { value: 'not_seen', words: 'not seen yet' },
  ]
})
const now = computed(() => (board.value.front_rcd_seen === 'yes' ? board.value.front_rcd : board.value.front_rcd_seen))
const mark = (value: Exclude<Answer, 'not_seen'>) => (value === 'no' ? 'none' : value.time_delayed ? 'S' : value.type)

function tap(value: Answer): void {
  const seen = typeof value === 'string' ? value : 'yes'
  store.changeAll([
    { field: 'boards.0.front_rcd_seen', value: seen },
    { field: 'boards.0.front_rcd', value: typeof value === 'string' ? null : value },
  ])
}
</script>

<template>
  <TapGroup
    label="Which mark is on the RCD before the new way?" :answers="answers" :chosen="(one) => same(one, now)"
    hint="A Type AC one goes blind on DC from a car: it can’t stay before this circuit." @tap="tap"
  >
    <template #picture="{ value }"><WaveformMark :type="mark(value)" /></template>
  </TapGroup>
</template>
