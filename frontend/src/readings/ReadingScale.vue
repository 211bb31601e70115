<script setup lang="ts">
// Where the figure lies between nothing and the limit, with the expected band.
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'

import type { Step } from '../api/types'

const props = defineProps<{ step: Step; value: number | null }>()

const limit = computed(() => props.step.limit ?? props.step.limit_low)
const top = computed(() =>
  Math.max((limit.value ?? 0) * 1.08, (props.step.expected_high ?? 0) * 1.25, (props.value ?? 0) * 1.05),
)
const percent = computed(() => scaleLinear([0, top.value || 1], [0, 100]).clamp(true))
const band = computed(() => {
  const { expected_low: low, expected_high: high } = props.step
  return low === null || high === null
    ? null
    : { left: percent.value(low), width: Math.max(1.5, percent.value(high) - percent.value(low)) }
})
</script>

<template>
  <div v-if="limit !== null || band" class="scale" aria-hidden="true">
    <div class="track">
      <span v-if="value !== null" class="value glide" :style="{ width: `${percent(value)}%` }" />
      <span v-if="band" class="band" :style="{ left: `${band.left}%`, width: `${band.width}%` }" />
      <span v-if="limit !== null" class="limit" :style="{ left: `${percent(limit)}%` }" />
    </div>
  </div>
</template>

<style scoped>
.scale {
  padding: 8px 0;
  max-width: 620px;
}
.track {
  position: relative;
  height: 14px;
  background: var(--track);
}
.track span {
  position: absolute;
  top: 0;
  height: 100%;
}
.value {
  left: 0;
  background: var(--meets);
}
.band {
  background: color-mix(in srgb, var(--meets) 45%, transparent);
  outline: 1px solid var(--meets);
}
.track .limit {
  width: 3px;
  top: -6px;
  height: 26px;
  background: var(--ink);
}
</style>
