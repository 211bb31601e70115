<script setup lang="ts">
// What the rods come to at each depth, in warm ground, on the day and in winter, against what is wanted.
import { computed } from 'vue'
import { useDisplay } from 'vuetify'

import type { ElectrodeOutlook } from '../../../api/types'

const props = defineProps<{ found: ElectrodeOutlook; rodM: number; wantedOhm: number }>()

const { width } = useDisplay()
const WIDE = computed(() => (width.value < 840 ? 340 : 640))
const HIGH = 230
const LEFT = 52
const RIGHT = 96
const TOP = 14
const BOTTOM = 40

const DEEPEST = computed(() => props.found.depths.at(-1)!.rod_m)
/** As high as what is wanted and the planned rods in winter ask for; the shallowest rods run out of the picture. */
const most = computed(() => {
  const needed = Math.max(props.wantedOhm * 1.25, props.found.winter_ohm * 1.5)
  const power = 10 ** Math.floor(Math.log10(needed))
  return [1, 1.5, 2, 3, 5, 10].map((one) => one * power).find((one) => one >= needed)!
})
const x = (m: number) => LEFT + (m / DEEPEST.value) * (WIDE.value - LEFT - RIGHT)
const y = (ohm: number) => HIGH - BOTTOM - (Math.min(ohm, most.value) / most.value) * (HIGH - TOP - BOTTOM)
const SEASONS = [
  { key: 'winter_ohm', words: 'winter', dash: '' },
  { key: 'now_ohm', words: 'on the day', dash: '6 3' },
  { key: 'warm_ohm', words: 'late summer', dash: '2 3' },
] as const
const lines = computed(() =>
  SEASONS.map((season) => ({
    ...season,
    points: props.found.depths
      .filter((one) => one[season.key] <= most.value)
      .map((one) => `${x(one.rod_m)},${y(one[season.key])}`)
      .join(' '),
    endY: y(props.found.depths.at(-1)![season.key]),
  })),
)
/** The names at the lines' ends, pushed apart where the lines run close. */
const named = computed(() => {
  let last = -Infinity
  return lines.value.map((one) => {
    last = Math.max(one.endY + 4, last + 17)
    return { ...one, textY: last }
  })
})
const marksX = computed(() => [0, 2, 4, 6, 8].filter((one) => one <= DEEPEST.value))
const marksY = computed(() => [0, 0.5, 1].map((one) => one * most.value))
const words = computed(() => {
  const enough = props.found.depths.find((one) => one.winter_ohm <= props.wantedOhm)
  const told = enough ? `low enough in winter from ${enough.rod_m} m on` : 'not low enough in winter at any depth'
  return `Resistance against driven length: ${told}`
})
</script>

<template>
  <figure>
    <figcaption>{{ words }}</figcaption>
    <svg :viewBox="`0 0 ${WIDE} ${HIGH}`" role="img" :aria-label="words">
      <g v-for="one in marksX" :key="`x${one}`" class="mark">
        <line :x1="x(one)" :x2="x(one)" :y1="TOP" :y2="HIGH - BOTTOM" />
        <text :x="x(one)" :y="HIGH - BOTTOM + 18" text-anchor="middle">{{ one }} m</text>
      </g>
      <g v-for="one in marksY" :key="`y${one}`" class="mark">
        <line :x1="LEFT" :x2="WIDE - RIGHT" :y1="y(one)" :y2="y(one)" />
        <text :x="LEFT - 6" :y="y(one) + 5" text-anchor="end">{{ Math.round(one) }} Ω</text>
      </g>
      <line :x1="LEFT" :x2="WIDE - RIGHT" :y1="y(wantedOhm)" :y2="y(wantedOhm)" class="wanted" />
      <text :x="WIDE - RIGHT - 4" :y="y(wantedOhm) - 6" text-anchor="end">wanted, at most {{ wantedOhm }} Ω</text>
      <line :x1="x(rodM)" :x2="x(rodM)" :y1="TOP" :y2="HIGH - BOTTOM" class="planned" />
      <text :x="x(rodM)" :y="HIGH - 4" text-anchor="middle" class="here">planned</text>
      <g v-for="one in named" :key="one.key" class="season">
        <polyline :points="one.points" :stroke-dasharray="one.dash" />
        <text :x="WIDE - RIGHT + 6" :y="one.textY">{{ one.words }}</text>
      </g>
      <circle :cx="x(rodM)" :cy="y(found.winter_ohm)" r="5" />
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 10px 12px;
  max-width: 760px;
}
figcaption {
  font-weight: 700;
}
svg {
  display: block;
  width: 100%;
  height: auto;
}
text {
  font-size: 13px;
  fill: var(--ink);
}
.mark line {
  stroke: var(--line);
}
.mark text {
  fill: var(--quiet);
}
.wanted {
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-dasharray: 8 4;
}
.planned {
  stroke: var(--copper);
  stroke-width: 2;
}
.here {
  fill: var(--copper);
  font-weight: 700;
}
polyline {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
}
circle {
  fill: var(--copper);
}
</style>
