<script setup lang="ts">
// Which leads go where for this step. Conductors are named, colour only repeats the name.
import { computed } from 'vue'

import type { Step } from '../api/types'

const props = defineProps<{ step: Step }>()

const COLOURS: Record<string, string> = { L: '#7a4a21', N: '#2a5fa8', PE: '#2f8a3c' }
const throughCar = computed(() => ['zs', 'rcd_trip', 'dc_detection', 'charge_point_states'].includes(props.step.step))
const place = computed(() => props.step.where.replace(/^at (the )?/, ''))
const name = computed(() => place.value.charAt(0).toUpperCase() + place.value.slice(1))
const leads = computed(() =>
  props.step.leads.map((lead, index) => ({ lead, y: 34 + index * 26 - (props.step.leads.length - 3) * 13 })),
)
</script>

<template>
  <svg
    v-if="step.leads.length"
    viewBox="0 0 600 122"
    class="drawing"
    role="img"
    :aria-label="`Tester leads ${step.leads.join(', ')} ${step.where}`"
  >
    <rect x="4" y="14" width="116" height="92" rx="6" class="box" />
    <text x="20" y="64" class="strong">Tester</text>
    <g v-for="one in leads" :key="one.lead">
      <line
        x1="120"
        :x2="throughCar ? 260 : 400"
        :y1="one.y"
        :y2="one.y"
        :stroke="COLOURS[one.lead]"
        stroke-width="4"
      />
      <text x="190" :y="one.y - 5" text-anchor="middle">{{ one.lead }}</text>
    </g>
    <template v-if="throughCar">
      <rect x="260" y="14" width="116" height="92" rx="6" class="box" />
      <text x="276" y="56" class="strong">Adapter</text>
      <text x="276" y="74">as the car</text>
      <line x1="376" x2="440" y1="60" y2="60" class="lead" />
    </template>
    <rect :x="throughCar ? 440 : 400" y="14" :width="throughCar ? 156 : 196" height="92" rx="12" class="box" />
    <text :x="throughCar ? 456 : 416" y="64" class="strong">{{ name }}</text>
  </svg>
</template>

<style scoped>
.drawing {
  width: 100%;
  max-width: 430px;
  display: block;
}
.box {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2;
}
.lead {
  stroke: var(--ink);
  stroke-width: 6;
}
text {
  font: 400 15px var(--text);
  fill: var(--ink);
}
.strong {
  font-weight: 700;
}
@media (max-width: 839px) {
  .drawing {
    display: none;
  }
}
</style>
