<script setup lang="ts">
// The run band: chain and three tracks from one profile. Folds to a chain of dots on phones; also a table.
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue'

import type { RunProfile } from '../api/types'
import RunAmps from './RunAmps.vue'
import RunChain from './RunChain.vue'
import RunDots from './RunDots.vue'
import RunTable from './RunTable.vue'
import RunTrack from './RunTrack.vue'
import { useRunGeometry } from './useRunGeometry'

const props = defineProps<{ profile: RunProfile; at?: string }>()

const FOLD_BELOW_PX = 760
const box = useTemplateRef<HTMLElement>('box')
const width = ref(1280)
const asTable = ref(false)
const chosen = ref<number>()
let observer: ResizeObserver | undefined

onMounted(() => {
  observer = new ResizeObserver(([entry]) => (width.value = entry!.contentRect.width))
  observer.observe(box.value!)
})
onBeforeUnmount(() => observer?.disconnect())

const place = useRunGeometry(() => props.profile, width)
const folded = computed(() => width.value < FOLD_BELOW_PX)

const volts = computed(() => {
  const along = [props.profile.board_volts_lost_v, ...props.profile.sections.map((section) => section.volts_lost_v)]
  return [{ x: place.cutOutX, value: 0 }, ...along.map((value, i) => ({ x: place.nodesX.value[i]!, value }))]
})
const loop = computed(() => {
  const along = [props.profile.board_loop_ohm, ...props.profile.sections.map((section) => section.loop_ohm)]
  const points = along.map((value, i) => ({ x: place.nodesX.value[i]!, value }))
  return [{ x: place.cutOutX, value: props.profile.origin_loop_ohm }, ...points]
})
const marks = computed(() =>
  props.profile.marks.map((mark) => ({
    x: mark.at === 'cut_out' ? place.cutOutX : loop.value.at(-1)!.x,
    value: mark.value,
    expected: mark.expected,
  })),
)
const told = computed(() => {
  const section = chosen.value === undefined ? undefined : props.profile.sections[chosen.value]
  if (!section) return ''
  const carries = section.iz_a === null ? 'no rating' : `carries ${section.iz_a.toFixed(1)} A`
  return `${section.index + 1} ${section.name}, ${section.length_m} m, method ${section.method}: ${carries}, ${section.volts_lost_v.toFixed(2)} V lost, loop ${section.loop_ohm.toFixed(3)} Ω at its end`
})
</script>

<template>
  <section ref="box" class="run-band" aria-label="The run">
    <RunTable v-if="asTable" :profile="profile" />
    <RunDots v-else-if="folded" :profile="profile" :at="at" />
    <template v-else>
      <svg :viewBox="`0 0 ${width} 266`" :width="width" height="266" role="img" aria-label="The run drawn to scale from the board on, with volts lost, loop and cable amps along it. The table beside it holds the same figures.">
        <RunChain :profile="profile" :cut-out-x="place.cutOutX" :meter-x="place.meterX" :board-x="place.boardX" :end-x="place.endX.value" :sections="place.sections.value" />
        <RunTrack
          title="Volts lost" :top="122" :points="volts" :limit="profile.volts_limit_v"
          :limit-text="`limit ${profile.volts_limit_v.toFixed(1)} V`"
          :value-text="`${profile.volts_lost_v.toFixed(1)} V  ${profile.volts_lost_percent.toFixed(1)} %`"
        />
        <RunTrack
          title="Loop, hot" :top="168" :points="loop" :limit="profile.zs_limit_ohm" :marks="marks"
          :limit-text="`limit ${profile.zs_limit_ohm?.toFixed(2)} Ω`" :value-text="`${profile.zs_ohm.toFixed(2)} Ω`"
        />
        <RunAmps :profile="profile" :top="214" :start-x="place.boardX" :end-x="loop.at(-1)!.x" :sections="place.sections.value" />
        <rect
          v-for="section in place.sections.value" :key="section.index" :x="section.x1" y="30" :width="section.x2 - section.x1" height="230"
          class="touch" :class="{ chosen: chosen === section.index }"
          @pointerenter="chosen = section.index" @pointerleave="chosen = undefined" @click="chosen = section.index"
        />
        <text :x="place.boardX + 150" y="102" class="small told">{{ told }}</text>
      </svg>
    </template>
    <button v-if="!folded || !at" class="link as-table" type="button" :aria-pressed="asTable" @click="asTable = !asTable">
      {{ asTable ? 'As drawing' : 'As table' }}
    </button>
  </section>
</template>

<style src="./run.css" />
