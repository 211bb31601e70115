<script setup lang="ts">
// The day as a chart: house, the car on top of it, against load limit and fuse. Every figure is the core's.
import { useElementSize } from '@vueuse/core'
import { scaleLinear } from 'd3-scale'
import { area, curveStepAfter, line } from 'd3-shape'
import { computed, useTemplateRef } from 'vue'

import type { SupplyDay } from '../../../api/types'
import { clock, DAY, NOON, sinceNoon } from './clock'

const props = defineProps<{ day: SupplyDay; offPeak?: [number, number] }>()

const HEIGHT = 250
const EDGE = { left: 38, right: 8, top: 12, bottom: 24 }
const box = useTemplateRef<HTMLElement>('box')
const { width } = useElementSize(box, { width: 680, height: 0 })

const x = computed(() => scaleLinear([0, DAY], [EDGE.left, width.value - EDGE.right]))
const most = computed(() => Math.max(props.day.peak_a, props.day.limit_a ?? 0, props.day.fuse_a ?? 0, 10))
const y = computed(() => scaleLinear([0, most.value * 1.12], [HEIGHT - EDGE.bottom, EDGE.top]))
const ticks = computed(() => y.value.ticks(5))
const hours = computed(() =>
  [0, 180, 360, 540, 720, 900, 1080, 1260, 1440].filter((_, index) => width.value > 520 || index % 2 === 0),
)

const house = computed(
  () =>
    area<number>(
      (_, minute) => x.value(minute),
      y.value(0),
      (amps) => y.value(amps),
    ).curve(curveStepAfter)(props.day.house_a) ?? '',
)
const car = computed(() => {
  const bottom = (_: number, minute: number) => y.value(props.day.house_a[minute]!)
  return (
    area<number>(
      (_, minute) => x.value(minute),
      bottom,
      (amps) => y.value(amps),
    ).curve(curveStepAfter)(props.day.total_a) ?? ''
  )
})
const total = computed(
  () =>
    line<number>(
      (_, minute) => x.value(minute),
      (amps) => y.value(amps),
    ).curve(curveStepAfter)(props.day.total_a) ?? '',
)
const bands = computed(() => {
  if (!props.offPeak) return []
  const [from, to] = props.offPeak.map(sinceNoon) as [number, number]
  return from < to
    ? [[from, to]]
    : [
        [0, to],
        [from, DAY],
      ]
})
const lines = computed(() => {
  const { limit_a, fuse_a } = props.day
  const found = [
    ...(limit_a === null ? [] : [{ amps: limit_a, words: `load limit ${limit_a} A` }]),
    ...(fuse_a === null || fuse_a === limit_a ? [] : [{ amps: fuse_a, words: `cut-out fuse ${fuse_a} A` }]),
  ]
  return fuse_a !== null && fuse_a === limit_a ? [{ amps: fuse_a, words: `load limit and fuse ${fuse_a} A` }] : found
})
</script>

<template>
  <figure ref="box">
    <svg
      :viewBox="`0 0 ${width} ${HEIGHT}`"
      :width="width"
      :height="HEIGHT"
      role="img"
      :aria-label="`Current through the day from noon to noon. ${day.answer} Highest ${day.peak_a} A.`"
    >
      <g v-for="[from, to] in bands" :key="from">
        <rect
          :x="x(from!)"
          :y="EDGE.top"
          :width="x(to!) - x(from!)"
          :height="HEIGHT - EDGE.top - EDGE.bottom"
          class="band"
        />
        <text v-if="x(to!) - x(from!) > 60" :x="x(from!) + 5" :y="HEIGHT - EDGE.bottom - 6" class="quiet">
          off-peak
        </text>
      </g>
      <g v-for="tick in ticks" :key="tick">
        <line :x1="EDGE.left" :x2="width - EDGE.right" :y1="y(tick)" :y2="y(tick)" class="grid" />
        <text :x="EDGE.left - 6" :y="y(tick) + 4" text-anchor="end" class="figure">{{ tick }}</text>
      </g>
      <text
        v-for="minute in hours"
        :key="minute"
        :x="x(minute)"
        :y="HEIGHT - 6"
        :text-anchor="minute === 0 ? 'start' : minute === DAY ? 'end' : 'middle'"
        class="figure"
      >
        {{ clock(minute + NOON) }}
      </text>
      <path :d="house" class="house" />
      <path :d="car" class="car" />
      <path :d="total" class="total" />
      <g v-for="one in lines" :key="one.words">
        <line :x1="EDGE.left" :x2="width - EDGE.right" :y1="y(one.amps)" :y2="y(one.amps)" class="limit" />
        <text :x="EDGE.left + 6" :y="y(one.amps) - 5" class="figure strong">{{ one.words }}</text>
      </g>
    </svg>
    <figcaption>
      <span><i class="key house" /> house</span><span><i class="key car" /> car, on top of the house</span
      ><span class="quiet">amps, noon to noon</span>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  min-width: 0;
}
svg {
  display: block;
  max-width: 100%;
}
text {
  font-size: 12px;
  fill: var(--ink);
}
text.quiet {
  fill: var(--quiet);
}
.strong {
  font-weight: 700;
}
.grid {
  stroke: var(--line);
}
.band {
  fill: var(--track);
  opacity: 0.55;
}
.house {
  fill: color-mix(in srgb, var(--ink) 34%, var(--sheet));
}
.car {
  fill: color-mix(in srgb, var(--copper) 62%, var(--sheet));
}
.total {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}
.limit {
  stroke: var(--ink);
  stroke-width: 1.6;
  stroke-dasharray: 6 4;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  font-size: 0.88rem;
  padding-top: 6px;
}
.key {
  display: inline-block;
  width: 14px;
  height: 12px;
  vertical-align: -1px;
  border: 1px solid var(--ink);
}
.key.house {
  background: color-mix(in srgb, var(--ink) 34%, var(--sheet));
}
.key.car {
  background: color-mix(in srgb, var(--copper) 62%, var(--sheet));
}
</style>
