<script setup lang="ts">
// The board at the origin: case, RCD in front, surge protection, main switch.
import { computed } from 'vue'

import { useJob } from '../../job/useJob'
import FieldGroup from '../../shared/FieldGroup.vue'
import JobField from '../../shared/JobField.vue'

const store = useJob()
const front = computed(() => store.job?.boards[0]?.front_rcd)
const RCDS = [
  { value: null, words: 'none seen' },
  ...['AC', 'A', 'F', 'B'].map((type) => ({ value: { type, residual_ma: 30, time_delayed: false, switches_neutral: true }, words: `Type ${type}, 30 mA` })),
  ...['A', 'B'].map((type) => ({ value: { type, residual_ma: 100, time_delayed: true, switches_neutral: true }, words: `Type ${type} S, 100 mA, time-delayed` })),
]
const choices = computed(() => {
  const known = RCDS.some((one) => JSON.stringify(one.value) === JSON.stringify(front.value))
  return known || !front.value ? RCDS : [...RCDS, { value: front.value, words: `Type ${front.value.type}, ${front.value.residual_ma} mA` }]
})
</script>

<template>
  <FieldGroup v-if="store.job?.boards.length" title="Board">
    <JobField path="boards.0.name" label="Name" />
    <JobField path="boards.0.location" label="Where it stands" />
    <JobField path="boards.0.enclosure" label="Case" kind="choice" choice="Enclosure" />
    <JobField path="boards.0.front_rcd_seen" label="RCD in front of the new way" kind="choice" choice="Seen" />
    <JobField v-if="store.job.boards[0]!.front_rcd_seen === 'yes'" path="boards.0.front_rcd" label="Its type, by the mark" kind="choice" :items="choices" />
    <JobField path="boards.0.surge_protection" label="Surge protection fitted" kind="choice" choice="Seen" />
    <JobField path="boards.0.conditional_rating_ka" label="Rated with the cut-out fuse" kind="number" unit="kA" />
    <JobField path="supply.main_switch.rating_a" label="Main switch" kind="number" unit="A" />
    <JobField path="circuits.0.way" label="Way of the new circuit" />
  </FieldGroup>
</template>
