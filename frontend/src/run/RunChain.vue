<script setup lang="ts">
// The chain: cut-out, meter, board, the sections to scale, charge point, car.
import { computed } from 'vue'

import type { RunProfile } from '../api/types'
import { verdictWords } from '../shared/format'
import type { SectionPlace } from './useRunGeometry'

const props = defineProps<{
  profile: RunProfile
  cutOutX: number
  meterX: number
  boardX: number
  endX: number
  sections: SectionPlace[]
}>()

const Y = 54
const byKind = computed(() => Object.fromEntries(props.profile.nodes.map((node) => [node.kind, node])))
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
    <text :x="cutOutX - 15" :y="24" class="name">Cut-out</text>
    <text :x="meterX" :y="24" text-anchor="middle" class="name">Meter</text>
    <text :x="boardX - 17" :y="24" class="name">Board</text>
    <text :x="endX + 15" :y="24" text-anchor="end" class="name">Charge point</text>
    <text :x="cutOutX - 15" :y="Y + 34" class="note">{{ byKind.cut_out?.notes[0] }}</text>
    <text :x="cutOutX - 15" :y="Y + 50" class="note">{{ byKind.cut_out?.notes[1] }}</text>
    <text :x="boardX - 17" :y="Y + 34" class="note">{{ byKind.board?.notes[0] }}</text>
    <text :x="boardX - 17" :y="Y + 50" class="note">tails {{ byKind.board?.notes[1]?.replace('tails ', '') }}</text>
    <text :x="endX + 108" :y="Y + 44" text-anchor="end" class="note" :class="{ short: profile.protection_verdict === 'falls_short' }">{{ byKind.charge_point?.notes[0] }}, {{ byKind.charge_point?.notes[1] }} · protection {{ verdictWords({ verdict: profile.protection_verdict }).toLowerCase() }}</text>
  </g>
</template>
