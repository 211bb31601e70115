<script setup lang="ts">
// The run band: chain and three tracks from one profile. Folds to a chain of dots on phones; also a table.
// Hover, tap or the arrow keys go along its sections and nodes, and tell the figures of each.
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue'

import type { RunProfile } from '../api/types'
import RunAmps from './RunAmps.vue'
import RunChain from './RunChain.vue'
import RunDots from './RunDots.vue'
import RunTable from './RunTable.vue'
import RunTrack from './RunTrack.vue'
import SaveDrawing from './SaveDrawing.vue'
import { useRunGeometry } from './useRunGeometry'
import { useRunSteps } from './useRunSteps'

const props = defineProps<{ profile: RunProfile; at?: string }>()

const FOLD_BELOW_PX = 760
const box = useTemplateRef<HTMLElement>('box')
const width = ref(1280)
const asTable = ref(false)
let observer: ResizeObserver | undefined

onMounted(() => {
  observer = new ResizeObserver(([entry]) => (width.value = entry!.contentRect.width))
  observer.observe(box.value!)
})
onBeforeUnmount(() => observer?.disconnect())

const folded = computed(() => width.value < FOLD_BELOW_PX)
const place = useRunGeometry(() => props.profile, width, folded)
const { steps, chosen, told, onKey } = useRunSteps(() => props.profile, place)

const volts = computed(() => {
  const along = [props.profile.board_volts_lost_v, ...props.profile.sections.map((section) => section.volts_lost_v)]
  return [{ x: place.cutOutX.value, value: 0 }, ...along.map((value, i) => ({ x: place.nodesX.value[i]!, value }))]
})
const voltLimits = computed(() => [{ x1: place.cutOutX.value, x2: volts.value.at(-1)!.x, value: props.profile.volts_limit_v }])
const loop = computed(() => {
  const along = [props.profile.board_loop_ohm, ...props.profile.sections.map((section) => section.loop_ohm)]
  const points = along.map((value, i) => ({ x: place.nodesX.value[i]!, value }))
  return [{ x: place.cutOutX.value, value: props.profile.origin_loop_ohm }, ...points]
})
const loopLimits = computed(() =>
  props.profile.chain.flatMap((link, index) =>
    link.zs_limit_ohm === null ? [] : [{ x1: index ? place.at(link.from_m) : place.cutOutX.value, x2: place.at(link.to_m), value: link.zs_limit_ohm }],
  ),
)
const loopOver = computed(() => props.profile.zs_limit_ohm !== null && props.profile.zs_ohm > props.profile.zs_limit_ohm)
const marks = computed(() =>
  props.profile.marks.map((mark) => ({
    x: mark.at === 'cut_out' ? place.cutOutX.value : mark.at === 'charge_point' ? loop.value.at(-1)!.x : place.at(mark.at_m),
    value: mark.value,
    expected: mark.expected,
  })),
)
// Narrow tracks carry their title above, so they stand further apart.
const tops = computed(() => (folded.value ? [18, 76, 142] : [122, 168, 214]))
const height = computed(() => (folded.value ? 192 : 266))
const label = 'The run drawn to scale from the board on, with volts lost, loop and cable amps along it. Arrow keys go along it; the table beside it holds the same figures.'
</script>

<template>
  <section ref="box" class="run-band" aria-label="The run">
    <RunTable v-if="asTable" :profile="profile" />
    <template v-else>
      <RunDots v-if="folded" :profile="profile" :at="at" />
      <div v-if="!folded || !at" class="drawing" role="group" tabindex="0" :aria-label="label" @keydown="onKey" @focusout="chosen = undefined">
        <svg :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" aria-hidden="true">
          <RunChain v-if="!folded" :profile="profile" :cut-out-x="place.cutOutX.value" :meter-x="place.meterX.value" :board-x="place.boardX.value" :end-x="place.endX.value" :sections="place.sections.value" :between="place.between.value" />
          <RunTrack
            title="Volts lost" :top="tops[0]!" :points="volts" :limits="voltLimits" :over="profile.volts_lost_v > profile.volts_limit_v" :narrow="folded"
            :limit-text="`limit ${profile.volts_limit_v.toFixed(1)} V`"
            :value-text="`${profile.volts_lost_v.toFixed(1)} V  ${profile.volts_lost_percent.toFixed(1)} %`"
          />
          <RunTrack
            title="Loop, hot" :top="tops[1]!" :points="loop" :limits="loopLimits" :marks="marks" :over="loopOver" :narrow="folded"
            :limit-text="`limit ${profile.zs_limit_ohm?.toFixed(2)} Ω`" :value-text="`${profile.zs_ohm.toFixed(2)} Ω`"
          />
          <RunAmps :profile="profile" :top="tops[2]!" :start-x="place.boardX.value" :end-x="loop.at(-1)!.x" :sections="place.sections.value" :narrow="folded" />
          <rect
            v-for="(step, index) in steps" :key="step.key" :x="step.x" :y="folded ? 0 : 30" :width="step.width" :height="folded ? height : step.node ? 50 : 230"
            class="touch" :class="{ chosen: chosen === index }"
            @pointerenter="chosen = index" @pointerleave="chosen = undefined" @click="chosen = index"
          />
          <text v-if="told && !folded" x="20" y="117" class="small told">{{ told }}</text>
        </svg>
        <p v-if="folded" class="told-below small">{{ told || 'Tap along the tracks for the figures there.' }}</p>
        <span class="sr-only" aria-live="polite">{{ told }}</span>
      </div>
    </template>
    <div v-if="!folded || !at" class="tools">
      <SaveDrawing v-if="!folded" :charge-point="profile.charge_point" />
      <button class="link" type="button" :aria-pressed="asTable" @click="asTable = !asTable">{{ asTable ? 'As drawing' : 'As table' }}</button>
    </div>
  </section>
</template>

<style src="./run.css" />
