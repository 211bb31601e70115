<script setup lang="ts">
// One track: a figure along the run under its limit (one step for each circuit), with readings as marks.
import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import { computed } from 'vue'

import type { Track } from '../api/types'

interface Mark {
  x: number
  value: number
  expected: boolean
}

const props = defineProps<{
  track: Track
  /** Where a distance from the board lies; null is the cut-out. */
  x: (atM: number | null) => number
  top: number
  narrow?: boolean
  marks?: Mark[]
}>()

const HEIGHT = 36
interface Point {
  x: number
  value: number
}
const points = computed<Point[]>(() =>
  props.track.at_m.map((at, index) => ({ x: props.x(at), value: props.track.values[index]! })),
)
const limits = computed(() =>
  props.track.limits.map((one) => ({ x1: props.x(one.from_m), x2: props.x(one.to_m), value: one.value })),
)
const last = computed(() => points.value.at(-1)!)
const y = computed(() => scaleLinear([0, props.track.most || 1], [props.top + HEIGHT, props.top]))
const path = computed(
  () =>
    line<Point>(
      (p) => p.x,
      (p) => y.value(p.value),
    )(points.value) ?? '',
)
const shade = computed(
  () =>
    area<Point>(
      (p) => p.x,
      props.top + HEIGHT,
      (p) => y.value(p.value),
    )(points.value) ?? '',
)

/** Above its mark, but below it where that would stand in the track above. */
const captionY = (markY: number) => (markY - 18 < props.top ? markY + 18 : markY - 8)
// The two texts at the right keep their distance, whichever is on top.
const texts = computed(() => {
  const limit = limits.value.at(-1)
  const limitY = limit ? y.value(limit.value) + 4 : props.top + 4
  let valueY = y.value(last.value.value) + 4
  if (Math.abs(valueY - limitY) < 15) valueY = props.track.over ? limitY - 15 : limitY + 15
  return { limitY, valueY }
})
</script>

<template>
  <g :class="{ over: track.over }">
    <text :x="narrow ? points[0]!.x : 20" :y="narrow ? top - 6 : top + HEIGHT / 2 + 4" class="small quiet">{{
      track.title
    }}</text>
    <line :x1="points[0]!.x" :x2="last.x" :y1="top + HEIGHT" :y2="top + HEIGHT" class="base" />
    <path :d="shade" class="shade glide" />
    <path :d="path" class="value glide" />
    <template v-if="limits.length">
      <line
        v-for="one in limits"
        :key="one.x1"
        :x1="one.x1"
        :x2="one.x2"
        :y1="y(one.value)"
        :y2="y(one.value)"
        class="limit glide"
      />
      <text v-if="!narrow" :x="last.x + 12" :y="texts.limitY" class="mono">{{ track.limit_words }}</text>
    </template>
    <text v-if="narrow" :x="last.x" :y="top - 6" text-anchor="end" class="mono result"
      >{{ track.over ? '⚠ ' : '' }}{{ track.value_words }}{{ limits.length ? `, ${track.limit_words}` : '' }}</text
    >
    <text v-else :x="last.x + 12" :y="texts.valueY" class="mono result"
      >{{ track.over ? '⚠ ' : '' }}{{ track.value_words }}</text
    >
    <g v-for="mark in marks" :key="`${mark.x}-${mark.expected}`">
      <circle :cx="mark.x" :cy="y(mark.value)" r="6" class="mark glide" :class="{ expected: mark.expected }" />
      <text
        :x="mark.x + (mark.x === last.x ? -10 : 10)"
        :y="captionY(y(mark.value))"
        :text-anchor="mark.x === last.x ? 'end' : 'start'"
        class="mono marked"
      >
        {{ mark.expected ? 'expect' : 'read' }} {{ mark.value.toFixed(2) }}
      </text>
    </g>
  </g>
</template>
