<script setup lang="ts">
// The board at the origin: case, RCD in front, surge protection, main switch.
import { computed } from 'vue'

import { useJob } from '../../job/useJob'
import FieldGroup from '../../shared/FieldGroup.vue'
import JobField from '../../shared/JobField.vue'
import { rcd, rcdWords } from '../../shared/rcds'

const store = useJob()
const board = computed(() => store.job?.boards[0])

// One question for two fields, so that they can't contradict: whether an RCD stands in front, and which.
const NOT_SEEN = { seen: 'not_seen', rcd: null }
const NONE = { seen: 'no', rcd: null }
const SEEN = [rcd('AC'), rcd('A'), rcd('F'), rcd('B'), rcd('A', 100, true), rcd('B', 100, true)]
const front = computed(() => ({ seen: board.value?.front_rcd_seen, rcd: board.value?.front_rcd ?? null }))
const items = computed(() => {
  const known = SEEN.map((one) => ({ value: { seen: 'yes', rcd: one }, words: rcdWords(one) }))
  const all = [{ value: NOT_SEEN, words: 'not seen yet' }, { value: NONE, words: 'none' }, ...known]
  const here = JSON.stringify(front.value)
  if (!front.value.rcd || all.some((one) => JSON.stringify(one.value) === here)) return all
  return [...all, { value: front.value, words: rcdWords(front.value.rcd) }]
})
function setFront(value: { seen?: string; rcd: unknown }): void {
  store.changeAll([
    { field: 'boards.0.front_rcd_seen', value: value.seen },
    { field: 'boards.0.front_rcd', value: value.rcd },
  ])
}
</script>

<template>
  <FieldGroup v-if="board" title="Board">
    <JobField path="boards.0.name" label="Name" />
    <JobField path="boards.0.location" label="Where it stands" />
    <JobField path="boards.0.enclosure" label="Case" kind="choice" choice="Enclosure" />
    <v-select label="RCD in front of the new way" :model-value="front" :items="items" item-title="words" item-value="value" @update:model-value="setFront" />
    <JobField path="boards.0.surge_protection" label="Surge protection fitted" kind="choice" choice="Seen" />
    <JobField path="boards.0.conditional_rating_ka" label="Rated with the cut-out fuse" kind="number" unit="kA" />
    <JobField path="supply.main_switch.rating_a" label="Main switch" kind="number" unit="A" />
    <JobField path="supply.main_switch.location" label="Main switch, where" />
    <JobField path="circuits.0.way" label="Way of the new circuit" />
    <JobField path="circuits.0.name" label="What it serves" />
  </FieldGroup>
</template>
