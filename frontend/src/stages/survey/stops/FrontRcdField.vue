<script setup lang="ts">
// Which mark is on the RCD before the new way, with the mark drawn.
import { sameRcd } from '../../../shared/fields/rcds'
import TapGroup from '../../../shared/fields/TapGroup.vue'
import { type FrontRcd, useFrontRcd } from '../../../shared/fields/useFrontRcd'
import WaveformMark from '../drawings/WaveformMark.vue'

const { answers, now, answer } = useFrontRcd(() => 0)
const mark = (value: Exclude<FrontRcd, 'not_seen'>) =>
  value === 'no' ? 'none' : value.time_delayed ? 'S' : (value.type ?? 'none')
</script>

<template>
  <TapGroup
    label="Which mark is on the RCD before the new way?"
    :answers="answers"
    :chosen="(one) => sameRcd(one, now)"
    hint="A Type AC one goes blind on DC from a car: it can’t stay before this circuit."
    @tap="answer"
  >
    <template #picture="{ value }"><WaveformMark :type="mark(value)" /></template>
  </TapGroup>
</template>
