<script setup lang="ts">
// The cable track: what each section carries, against its circuit's device and load.
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'

import type { RunProfile } from '../api/types'
import type { SectionPlace } from './useRunGeometry'

const props = defineProps<{
  profile: RunProfile
  top: number
  startX: number
  endX: number
  sections: SectionPlace[]
  narrow?: boolean
}>()

const HEIGHT = 44
const amps = computed(() => props.profile.amps)
const y = computed(() => scaleLinear([0, amps.value.most], [props.top + HEIGHT, props.top + 8]))

const steps = computed(() =>
  props.sections.map((place) => {
    const section = props.profile.sections[place.index]!
    const text = section.iz_a === null ? '?' : section.iz_a.toFixed(0)
    return {
      ...place,
      section,
      weak: amps.value.weak.includes(place.index),
      text,
      fits: text.length * 7 + 8 < place.x2 - place.x1,
    }
  }),
)
// One step of device and load for each circuit: from where it begins to where it ends.
const circuits = computed(() =>
  props.profile.chain.map((link, index, all) => {
    const own = steps.value.filter((step) => step.section.circuit === link.circuit)
    return { link, x1: index ? own[0]!.x1 : props.startX, x2: index === all.length - 1 ? props.endX : own.at(-1)!.x2 }
  }),
)
</script>

<template>
  <g :class="{ over: !amps.holds }">
    <text :x="narrow ? 16 : 20" :y="narrow ? top - 10 : top + HEIGHT / 2 + 4" class="small quiet">{{
      amps.title
    }}</text>
    <line :x1="startX" :x2="endX" :y1="top + HEIGHT" :y2="top + HEIGHT" class="base" />
    <g v-for="step in steps" :key="step.index">
      <template v-if="step.section.iz_a !== null">
        <line :x1="step.x1" :x2="step.x2" :y1="y(step.section.iz_a)" :y2="y(step.section.iz_a)" class="carries glide" />
        <text
          v-if="step.fits"
          :x="(step.x1 + step.x2) / 2"
          :y="y(step.section.iz_a) - 5"
          text-anchor="middle"
          class="mono copper-text"
          :class="{ weak: step.weak }"
        >
          {{ step.text }}
        </text>
      </template>
      <rect v-else :x="step.x1" :y="top + 10" :width="step.x2 - step.x1" :height="HEIGHT - 10" class="unrated" />
    </g>
    <g v-for="one in circuits" :key="one.link.circuit">
      <line :x1="one.x1" :x2="one.x2" :y1="y(one.link.device_a)" :y2="y(one.link.device_a)" class="device glide" />
      <line :x1="one.x1" :x2="one.x2" :y1="y(one.link.load_a)" :y2="y(one.link.load_a)" class="load glide" />
    </g>
    <text v-if="narrow" :x="endX" :y="top - 10" text-anchor="end" class="mono result"
      >{{ amps.value_words }}, {{ amps.load_words }}</text
    >
    <template v-else>
      <text :x="endX + 12" :y="top + 18" class="mono result">{{ amps.value_words }}</text>
      <text :x="endX + 12" :y="top + 35" class="mono">{{ amps.load_words }}</text>
    </template>
  </g>
</template>
