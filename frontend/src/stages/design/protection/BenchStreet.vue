<script setup lang="ts">
// The street drawn: transformer, main, services, houses with their cars; where the PEN is broken; what each car gets.
import { computed } from 'vue'

import type { Bench, BenchResult } from '../../../api/types'

const props = defineProps<{ bench: Bench; result: BenchResult; chosen: number }>()
defineEmits<{ choose: [place: number] }>()

const street = computed(() => props.bench.street)
// A short street is drawn wider.
const step = computed(() => Math.max(76, Math.min(150, 560 / street.value.houses.length)))
const LEFT = 74
const width = computed(() => LEFT + street.value.houses.length * step.value + 10)
const x = (place: number) => LEFT + place * step.value + step.value / 2
const phases = (place: number) =>
  street.value.houses[place]!.loads_a.map((load, phase) => (load ? `L${phase + 1}` : ''))
    .filter(Boolean)
    .join(' ') || 'no load'
const volts = (place: number) => props.result.houses[place]!
const lineVolts = (place: number) =>
  volts(place)
    .line_neutral_v.filter((one) => one !== null)
    .map((one) => one.toFixed(0))
    .join(' ')
const live = (place: number) => volts(place).car_v > 70
const cut = computed(() => {
  if (street.value.broken === 'service') return { x: x(street.value.here), y: 142 }
  if (street.value.broken === 'main')
    return { x: street.value.broken_before ? x(street.value.broken_before) - step.value / 2 : LEFT + 4, y: 176 }
  return undefined
})
</script>

<template>
  <div class="scroll" tabindex="0" role="group" aria-label="The street, scrolls sideways">
    <svg
      :viewBox="`0 0 ${width} 236`"
      :width="width"
      height="236"
      role="img"
      :aria-label="`A street of ${street.houses.length}. ${result.told} The table below holds every figure.`"
    >
      <rect x="8" y="150" width="42" height="52" rx="4" class="box" />
      <text x="29" y="180" text-anchor="middle" class="strong">Tr</text>
      <path d="M29 202v12M19 214h20M23 219h12M27 224h4" class="wire" />
      <path :d="`M50 176H${x(street.houses.length - 1)}`" class="pen" />
      <text x="54" y="194" class="quiet">PEN</text>
      <g
        v-for="(house, place) in street.houses.slice(0, result.houses.length)"
        :key="place"
        class="house"
        :class="{ here: place === street.here, chosen: place === chosen, live: live(place) }"
        @click="$emit('choose', place)"
      >
        <rect :x="x(place) - 38" y="4" width="76" height="228" class="touch" />
        <path :d="`M${x(place)} 176V118`" class="pen" />
        <path :d="`M${x(place) - 26} 118V90l26 -20 26 20v28z`" class="box" />
        <text :x="x(place)" y="102" text-anchor="middle" class="small">{{ phases(place) }}</text>
        <text :x="x(place)" y="114" text-anchor="middle" class="small figure">
          {{ house.loads_a.reduce((sum, load) => sum + load, 0).toFixed(0) }} A
        </text>
        <path :d="`M${x(place) - 20} 62h40l-7 -12h-22l-9 8z`" class="car" />
        <text :x="x(place)" y="38" text-anchor="middle" class="volts figure">
          {{ live(place) ? '⚠ ' : '' }}{{ volts(place).car_v.toFixed(0) }} V
        </text>
        <text v-if="place === street.here" :x="x(place)" y="18" text-anchor="middle" class="strong">this house</text>
        <text :x="x(place)" y="206" text-anchor="middle" class="small figure">
          {{ lineVolts(place) ? `L–N ${lineVolts(place)}` : '' }}
        </text>
        <template v-if="house.electrode_ohm">
          <path :d="`M${x(place) + 18} 118v34M${x(place) + 10} 152h16M${x(place) + 13} 156h10`" class="wire" />
          <text :x="x(place)" y="222" text-anchor="middle" class="small figure">
            {{ house.electrode_ohm }} Ω, {{ volts(place).electrode_a.toFixed(1) }} A
          </text>
        </template>
      </g>
      <g v-if="cut" class="cut">
        <rect :x="cut.x - 9" :y="cut.y - 9" width="18" height="18" />
        <path :d="`M${cut.x - 7} ${cut.y - 7}l14 14M${cut.x + 7} ${cut.y - 7}l-14 14`" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 8px;
}
text {
  font-size: 12px;
  fill: var(--ink);
}
.small {
  font-size: 11px;
}
.quiet {
  fill: var(--quiet);
}
.strong {
  font-weight: 700;
}
.volts {
  font-size: 14px;
  font-weight: 700;
}
.live .volts {
  fill: var(--falls_short);
}
.box {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.here .box {
  stroke-width: 3;
}
.car {
  fill: var(--ink);
}
.live .car {
  fill: var(--falls_short);
}
.pen {
  stroke: var(--copper);
  stroke-width: 3;
  fill: none;
}
.wire {
  stroke: var(--ink);
  stroke-width: 2;
  fill: none;
}
.touch {
  fill: transparent;
  cursor: pointer;
}
.chosen .touch {
  fill: color-mix(in srgb, var(--copper) 12%, transparent);
}
.cut rect {
  fill: var(--sheet);
}
.cut path {
  stroke: var(--falls_short);
  stroke-width: 4;
}
</style>
