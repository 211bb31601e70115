<script setup lang="ts">
// The chain: cut-out, meter, boards, joints, the sections to scale, charge point, car.
import { computed } from 'vue'

import type { RunProfile } from '../api/types'
import { verdictWords } from '../shared/format'
import type { NodePlace, SectionPlace } from './useRunGeometry'

const props = defineProps<{
  profile: RunProfile
  cutOutX: number
  meterX: number
  boardX: number
  endX: number
  sections: SectionPlace[]
  between: NodePlace[]
}>()

const Y = 58
const ROOM_PX = 118
const WIDE_PX = 800
const cutOut = computed(() => props.profile.nodes[0]!)
const board = computed(() => props.profile.nodes.find((node) => node.kind === 'board')!)
const point = computed(() => props.profile.nodes.at(-1)!)

/** A name goes where it has room between its neighbours; a joint's never does: its box is told on hover. */
const boards = computed(() =>
  props.between
    .filter((place) => place.node.kind === 'board')
    .map((place, index, all) => {
      const left = index ? all[index - 1]!.x : props.boardX
      return {
        ...place,
        fits: place.x - left > ROOM_PX && props.endX - place.x > ROOM_PX,
      }
    }),
)
const joints = computed(() => props.between.filter((place) => place.node.kind !== 'board'))
const BESIDE = 18
const ABOVE_CAR = 23
const short = (name: string, most = BESIDE) => (name.length > most ? `${name.slice(0, most - 1)}…` : name)
// A long name of the charge point reaches out over the car.
const pointName = computed(() => (props.profile.nodes.length > 3 ? short(point.value.name, ABOVE_CAR) : 'Charge point'))
</script>

<template>
  <g class="chain">
    <line :x1="cutOutX" :x2="endX" :y1="Y" :y2="Y" class="copper" />
    <path :d="`M${endX + 15} ${Y} q 20 2 26 12 t 22 8`" class="lead" />
    <path :d="`M${endX + 62} ${Y + 22} l 0 -8 l 10 -1 l 8 -8 l 22 0 l 9 8 l 8 2 l 0 7 z`" class="car" />
    <rect :x="cutOutX - 15" :y="Y - 15" width="30" height="30" rx="3" class="node" />
    <circle :cx="meterX" :cy="Y" r="14" class="node" />
    <rect :x="boardX - 17" :y="Y - 17" width="34" height="34" rx="4" class="node" />
    <rect :x="endX - 15" :y="Y - 19" width="30" height="38" rx="7" class="node" />
    <g v-for="place in sections" :key="place.index">
      <line v-if="place.index > 0" :x1="place.x1" :x2="place.x1" :y1="Y - 7" :y2="Y + 7" class="tick" />
      <text :x="(place.x1 + place.x2) / 2" :y="Y - 12" text-anchor="middle" class="small">{{ place.label }}</text>
    </g>
    <path
      v-for="place in joints"
      :key="`j${place.node.at_m}`"
      :d="`M${place.x} ${Y - 9} l 9 9 l -9 9 l -9 -9 z`"
      class="node"
    />
    <g v-for="place in boards" :key="`b${place.node.at_m}`">
      <rect :x="place.x - 12" :y="Y - 15" width="24" height="30" rx="4" class="node" />
      <template v-if="place.fits">
        <text :x="place.x" :y="18" text-anchor="middle" class="name">{{ short(place.node.name) }}</text>
      </template>
    </g>
    <text :x="cutOutX - 15" :y="18" class="name">Cut-out</text>
    <text :x="meterX" :y="18" text-anchor="middle" class="name">Meter</text>
    <text :x="boardX - 17" :y="18" class="name">Board</text>
    <text :x="endX + (pointName.length > BESIDE ? 50 : 15)" :y="18" text-anchor="end" class="name">{{
      pointName
    }}</text>
    <text :x="cutOutX - 15" :y="33" class="note">{{ cutOut.notes.join(' ') }}</text>
    <text :x="boardX - 17" :y="33" class="note">tails {{ board.notes.at(-1)?.replace('tails ', '') }}</text>
    <text :x="endX + 158" :y="33" text-anchor="end" class="note" :class="profile.protection_verdict"
      >{{ endX > WIDE_PX ? point.notes.join(', ') : point.notes[0] }} · protection
      {{ verdictWords({ verdict: profile.protection_verdict }).toLowerCase() }}</text
    >
  </g>
</template>
