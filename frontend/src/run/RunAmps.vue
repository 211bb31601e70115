<script setup lang="ts">
// The cable track: what each section carries, against the device and the load.
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'

import type { RunProfile } from '../api/types'
import type { SectionPlace } from './useRunGeometry'

const props = defineProps<{ profile: RunProfile; top: number; startX: number; endX: number; sections: SectionPlace[] }>()

const HEIGHT = 44
const ratings = computed(() => props.profile.sections.map((section) => section.iz_a))
const most = computed(() => Math.max(props.profile.device_a, ...ratings.value.map((rating) => rating ?? 0)))
const y = computed(() => scaleLinear([0, most.value * 1.1], [props.top + HEIGHT, props.top + 8]))

const steps = computed(() =>
  props.sections.map((place, index) => {
    const rating = ratings.value[index] ?? null
    const weak = rating !== null && rating < props.profile.device_a
    const text = rating === null ? '?' : rating.toFixed(0)
    return { ...place, rating, weak, text, fits: text.length * 7 + 8 < place.x2 - place.x1 }
  }),
)
const weakest = computed(() => Math.min(...ratings.value.map((rating) => rating ?? Infinity)))
const holds = computed(() => weakest.value >= props.profile.device_a && !ratings.value.includes(null))
const verdict = computed(() => {
  if (ratings.value.includes(null)) return 'no rating'
  return `${holds.value ? 'holds' : '▲ under'} ${props.profile.device_a.toFixed(0)} A`
})
</script>

<template>
  <g :class="{ over: !holds }">
    <text x="20" :y="top + HEIGHT / 2 + 4" class="small quiet">Cable, amps</text>
    <line :x1="startX" :x2="endX" :y1="top + HEIGHT" :y2="top + HEIGHT" class="base" />
    <g v-for="step in steps" :key="step.index">
      <template v-if="step.rating !== null">
        <line :x1="step.x1" :x2="step.x2" :y1="y(step.rating)" :y2="y(step.rating)" class="carries glide" />
        <text
          v-if="step.fits"
          :x="(step.x1 + step.x2) / 2"
          :y="y(step.rating) - 5"
          text-anchor="middle"
          class="mono copper-text"
          :class="{ weak: step.weak }"
        >
          {{ step.text }}
        </text>
      </template>
      <rect v-else :x="step.x1" :y="top + 10" :width="step.x2 - step.x1" :height="HEIGHT - 10" class="unrated" />
    </g>
    <line :x1="startX" :x2="endX" :y1="y(profile.device_a)" :y2="y(profile.device_a)" class="device glide" />
    <line :x1="startX" :x2="endX" :y1="y(profile.load_a)" :y2="y(profile.load_a)" class="load glide" />
    <text :x="endX + 12" :y="top + 18" class="mono result">{{ verdict }}</text>
    <text :x="endX + 12" :y="top + 35" class="mono">load {{ profile.load_a.toFixed(0) }} A</text>
  </g>
</template>
