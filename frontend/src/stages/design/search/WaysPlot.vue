<script setup lang="ts">
// The few ways at a glance: work to the right, price upwards, spare capacity as the size of the dot. Letters name the
// cards below; dots that lie on each other are told apart by their letters, set beside them.
import { computed } from 'vue'
import { useDisplay } from 'vuetify'

import type { FoundWay } from '../../../api/types'
import { letterOf } from './letters'

const props = defineProps<{ ways: FoundWay[] }>()

// On a phone the drawing is as wide as the phone, so that its words keep their size.
const { width } = useDisplay()
const WIDE = computed(() => (width.value < 840 ? 340 : 640))
const HIGH = 240
const LEFT = 56
const RIGHT = 24
const TOP = 22
const BOTTOM = 44

/** Round bounds around some values, with a little air, and the step of the marks. */
function scaleOf(values: number[]): { low: number; high: number; step: number } {
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const span = Math.max(most - least, most * 0.1, 0.1)
  const rough = span / 4
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].map((one) => one * power).find((one) => one >= rough)!
  return {
    low: Math.floor((least - span * 0.08) / step) * step,
    high: Math.ceil((most + span * 0.08) / step) * step,
    step,
  }
}
const work = computed(() => scaleOf(props.ways.map((way) => way.work_min / 60)))
const price = computed(() => scaleOf(props.ways.map((way) => way.price)))
const x = (hours: number) =>
  LEFT + ((hours - work.value.low) / (work.value.high - work.value.low)) * (WIDE.value - LEFT - RIGHT)
const y = (cost: number) =>
  HIGH - BOTTOM - ((cost - price.value.low) / (price.value.high - price.value.low)) * (HIGH - TOP - BOTTOM)
const marks = (scale: { low: number; high: number; step: number }) =>
  Array.from({ length: Math.round((scale.high - scale.low) / scale.step) + 1 }, (_, n) => scale.low + n * scale.step)
const told = (value: number, step: number) => value.toFixed(step < 1 ? 1 : 0)

const most = computed(() => Math.max(...props.ways.map((way) => way.spare_a), 1))
/** The area follows the spare capacity; a way with none is still a dot. */
const radius = (way: FoundWay) => 5 + 13 * Math.sqrt(Math.max(0, way.spare_a) / most.value)

const dots = computed(() => {
  const placed: { letter: string; way: FoundWay; x: number; y: number; r: number; textX: number; textY: number }[] = []
  for (const [index, way] of props.ways.entries()) {
    const [atX, atY, r] = [x(way.work_min / 60), y(way.price), radius(way)]
    let textX = atX + r + 9
    const textY = atY + 5
    const free = () => placed.every((one) => Math.hypot(one.textX - textX, one.textY - textY) > 15)
    for (let tries = 0; tries < 8 && !free(); tries++) textX += 15
    placed.push({ letter: letterOf(index), way, x: atX, y: atY, r, textX, textY })
  }
  return placed
})
const words = computed(() =>
  dots.value
    .map(
      ({ letter, way }) =>
        `${letter}: ${told(way.work_min / 60, 0.1)} h, material ${way.price.toFixed(0)}, ` +
        `${way.spare_a.toFixed(0)} A to spare`,
    )
    .join('; '),
)
</script>

<template>
  <figure v-if="ways.length > 1">
    <figcaption>Work against material; the bigger the dot, the more capacity to spare</figcaption>
    <svg :viewBox="`0 0 ${WIDE} ${HIGH}`" role="img" :aria-label="words">
      <g v-for="one in marks(work)" :key="`w${one}`" class="mark">
        <line :x1="x(one)" :x2="x(one)" :y1="TOP" :y2="HIGH - BOTTOM" />
        <text :x="x(one)" :y="HIGH - BOTTOM + 18" text-anchor="middle">{{ told(one, work.step) }} h</text>
      </g>
      <g v-for="one in marks(price)" :key="`p${one}`" class="mark">
        <line :x1="LEFT" :x2="WIDE - RIGHT" :y1="y(one)" :y2="y(one)" />
        <text :x="LEFT - 8" :y="y(one) + 5" text-anchor="end">{{ told(one, price.step) }}</text>
      </g>
      <text :x="LEFT" :y="TOP - 8" class="axis">material</text>
      <text :x="WIDE - RIGHT" :y="HIGH - 6" text-anchor="end" class="axis">work</text>
      <circle
        v-for="one in dots"
        :key="`dot${one.letter}`"
        :cx="one.x"
        :cy="one.y"
        :r="one.r"
        :class="{ standing: one.way.standing }"
      />
      <g v-for="one in dots" :key="one.letter" class="lead">
        <line v-if="one.textX - one.x > one.r + 12" :x1="one.x + one.r" :x2="one.textX - 7" :y1="one.y" :y2="one.y" />
        <text :x="one.textX" :y="one.textY" text-anchor="middle" class="letter">{{ one.letter }}</text>
      </g>
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 0 0 12px;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 10px 12px;
  max-width: 760px;
}
figcaption {
  font-size: 0.88rem;
  color: var(--quiet);
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
.lead line {
  stroke: var(--quiet);
  stroke-dasharray: 2 2;
}
.mark line {
  stroke: var(--line);
}
.mark text,
.axis {
  fill: var(--quiet);
}
.letter {
  font-weight: 700;
  font-size: 15px;
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
}
circle {
  fill: var(--track);
  stroke: var(--ink);
  stroke-width: 1.5;
  fill-opacity: 0.7;
}
circle.standing {
  fill: none;
  stroke: var(--copper);
  stroke-width: 4;
}
</style>
