<script setup lang="ts">
// The run band: chain and three tracks from one profile. Folds to a chain of dots on phones; also a table.
// Hover, tap or the arrow keys go along its sections and nodes, and tell the figures of each.
import { onKeyStroke, useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'

import type { GuardView, RunProfile } from '../api/types'
import { isTyping } from '../shared/keys'
import GuardList from './GuardList.vue'
import RunAmps from './RunAmps.vue'
import RunChain from './RunChain.vue'
import RunGuards from './RunGuards.vue'
import RunTable from './RunTable.vue'
import RunTrack from './RunTrack.vue'
import SaveDrawing from './SaveDrawing.vue'
import { useGuardRail } from './useGuardRail'
import { useRunGeometry } from './useRunGeometry'
import { useRunSteps } from './useRunSteps'
import type { Place } from './useStrip'

const props = defineProps<{
  profile: RunProfile
  guards: readonly GuardView[]
  left: (nodes: readonly string[]) => number
}>()
const emit = defineEmits<{ go: [node: Place]; fold: [] }>()

const FOLD_BELOW_PX = 760
const box = useTemplateRef<HTMLElement>('box')
// Until it was measured, no wider than a window holds beside its margins: on a phone nothing may jump or stick out.
const MARGINS_PX = 32
const { width } = useElementSize(box, { width: window.innerWidth - MARGINS_PX, height: 0 })
const asTable = ref(false)

const folded = computed(() => width.value < FOLD_BELOW_PX)
const place = useRunGeometry(() => props.profile, width, folded)
const { places: rail } = useGuardRail(
  () => (folded.value ? [] : props.guards),
  () => ({ low: 8, high: width.value - 8 }),
  (guard) => {
    if (guard.stands === 'cut_out') return place.cutOutX.value
    return guard.stands === 'unit' ? place.endX.value : place.along(guard.at_m)
  },
)
const { steps, chosen, told, onKey } = useRunSteps(() => props.profile, place, rail)
function onKeys(event: KeyboardEvent): void {
  const there = chosen.value === undefined ? undefined : steps.value[chosen.value]?.place
  if (event.key === 'Enter' && there) emit('go', there)
  else onKey(event)
}
onKeyStroke('r', (event) => {
  if (isTyping(event) || folded.value) return
  event.preventDefault()
  emit('fold')
})
/** Where something is still needed. */
const badges = computed(() =>
  steps.value.flatMap((one) => {
    const count = one.place && one.first ? props.left([one.place.key]) : 0
    return count
      ? [{ key: one.key, x: one.node ? one.x + one.width : one.x + one.width / 2, y: one.node ? 44 : 58, count }]
      : []
  }),
)

const marks = computed(() =>
  props.profile.marks.map((mark) => ({
    x:
      mark.at === 'cut_out'
        ? place.cutOutX.value
        : mark.at === 'charge_point'
          ? place.along(props.profile.length_m)
          : place.along(mark.at_m),
    value: mark.value,
    expected: mark.expected,
  })),
)
// Narrow tracks carry their title above, so they stand further apart.
const tops = computed(() => (folded.value ? [18, 76, 142] : [160, 206, 252]))
const height = computed(() => (folded.value ? 192 : 302))
const hint = computed(() =>
  folded.value
    ? 'Tap along the tracks for the figures there.'
    : 'Point at a place, or go along with the arrow keys, for its figures.',
)
const label =
  'The run drawn to scale from the board on: what opens it, volts lost, loop and cable amps along it. ' +
  'Arrow keys go along it; the table beside it holds the same figures.'
</script>

<template>
  <section ref="box" class="run-band" aria-label="The run">
    <RunTable v-if="asTable" :profile="profile" />
    <template v-else>
      <GuardList v-if="folded" :guards="guards" />
      <div class="drawn" role="group" tabindex="0" :aria-label="label" @keydown="onKeys" @focusout="chosen = undefined">
        <svg :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" aria-hidden="true">
          <RunChain
            v-if="!folded"
            :profile="profile"
            :cut-out-x="place.cutOutX.value"
            :meter-x="place.meterX.value"
            :board-x="place.boardX.value"
            :end-x="place.endX.value"
            :sections="place.sections.value"
            :between="place.between.value"
          />
          <RunGuards v-if="!folded" :places="rail" :chain-y="76" :top="90" />
          <RunTrack
            v-for="(track, index) in profile.tracks"
            :key="track.key"
            :track="track"
            :x="place.along"
            :top="tops[index]!"
            :marks="track.key === 'loop' ? marks : undefined"
            :narrow="folded"
          />
          <RunAmps
            :profile="profile"
            :top="tops[2]!"
            :start-x="place.boardX.value"
            :end-x="place.along(profile.length_m)"
            :sections="place.sections.value"
            :narrow="folded"
          />
          <rect
            v-for="(step, index) in steps"
            :key="step.key"
            :x="step.x"
            :y="folded ? 0 : step.guard ? 86 : 36"
            :width="step.width"
            :height="folded ? height : step.guard ? 62 : step.node ? 46 : height - 40"
            class="touch"
            :class="{ chosen: chosen === index }"
            @pointerenter="chosen = index"
            @pointerleave="chosen = undefined"
            @click="chosen = index"
            @dblclick="step.place && $emit('go', step.place)"
          />
          <g v-for="one in folded ? [] : badges" :key="`b${one.key}`" class="badge">
            <rect :x="one.x - 9" :y="one.y - 9" width="18" height="18" rx="9" />
            <text :x="one.x" :y="one.y + 4" text-anchor="middle">{{ one.count }}</text>
          </g>
        </svg>
        <p class="told-below small">{{ told || hint }}</p>
        <span class="sr-only" aria-live="polite">{{ told }}</span>
      </div>
    </template>
    <div class="tools" :class="{ beside: !folded && !asTable }">
      <SaveDrawing v-if="!folded" :charge-point="profile.charge_point" />
      <button class="link" type="button" :aria-pressed="asTable" @click="asTable = !asTable">
        {{ asTable ? 'As drawing' : 'As table' }}
      </button>
      <button v-if="!folded" class="link" type="button" aria-keyshortcuts="r" @click="$emit('fold')">
        Fold <kbd>R</kbd>
      </button>
    </div>
  </section>
</template>

<style src="./run.css" />
