<script setup lang="ts">
// One track: a figure along the run under its limit (one step for each circuit), with readings as marks.
import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import { computed } from 'vue'

interface Point {
  x: number
  value: number
}
interface Mark extends Point {
  expected: boolean
}
export interface Limit {
  x1: number
  x2: number
  value: number
}

const props = defineProps<{
  title: string
  top: number
  points: Point[]
  limits: Limit[]
  limitText: string
  valueText: string
  over: boolean
  narrow?: boolean
  marks?: Mark[]
}>()

const HEIGHT = 36
const last = computed(() => props.points.at(-1)!)
const most = computed(() => Math.max(...[...props.points, ...(props.marks ?? []), ...props.limits].map((p) => p.value)))
const y = computed(() => scaleLinear([0, (most.value || 1) * 1.08], [props.top + HEIGHT, props.top]))
const path = computed(() => line<Point>((p) => p.x, (p) => y.value(p.value))(props.points) ?? '')
const shade = computed(() => area<Point>((p) => p.x, props.top + HEIGHT, (p) => y.value(p.value))(props.points) ?? '')

// The two texts at the right keep their distance, whichever is on top.
const texts = computed(() => {
  const limit = props.limits.at(-1)
  const limitY = limit ? y.value(limit.value) + 4 : props.top + 4
  let valueY = y.value(last.value.value) + 4
  if (Math.abs(valueY - limitY) < 15) valueY = props.over ? limitY - 15 : limitY + 15
  return { limitY, valueY }
})
</script>

<template>
  <g :class="{ over }">
    <text :x="narrow ? points[0]!.x : 20" :y="narrow ? top - 6 : top + HEIGHT / 2 + 4" class="small quiet">{{ title }}</text>
    <line :x1="points[0]!.x" :x2="last.x" :y1="top + HEIGHT" :y2="top + HEIGHT" class="base" />
    <path :d="shade" class="shade glide" />
    <path :d="path" class="value glide" />
    <template v-if="limits.length">
      <line v-for="one in limits" :key="one.x1" :x1="one.x1" :x2="one.x2" :y1="y(one.value)" :y2="y(one.value)" class="limit glide" />
      <text v-if="!narrow" :x="last.x + 12" :y="texts.limitY" class="mono">{{ limitText }}</text>
    </template>
    <text v-if="narrow" :x="last.x" :y="top - 6" text-anchor="end" class="mono result">{{ over ? '▲ ' : '' }}{{ valueText }}{{ limits.length ? `, ${limitText}` : '' }}</text>
    <text v-else :x="last.x + 12" :y="texts.valueY" class="mono result">{{ over ? '▲ ' : '' }}{{ valueText }}</text>
    <g v-for="mark in marks" :key="`${mark.x}-${mark.expected}`">
      <circle :cx="mark.x" :cy="y(mark.value)" r="6" class="mark glide" :class="{ expected: mark.expected }" />
      <text
        :x="mark.x + (mark.x === last.x ? -10 : 10)"
        :y="y(mark.value) - 8"
        :text-anchor="mark.x === last.x ? 'end' : 'start'"
        class="mono marked"
      >
        {{ mark.expected ? 'expect' : 'read' }} {{ mark.value.toFixed(2) }}
      </text>
    </g>
  </g>
</template>
