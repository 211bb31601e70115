<script setup lang="ts">
// The conductors of a house, what is linked, and the part of the set's current that flows in each.
import { computed } from 'vue'

import type { Flow, Scene } from '../api/types'
import type { useHouseDrawing } from './useHouseDrawing'

const props = defineProps<{
  drawing: ReturnType<typeof useHouseDrawing>
  scene: Scene
  flow: Flow[]
  linked: string
}>()

const { wires, inside, link, beside, cable } = props.drawing
const COLOURS: Record<string, string> = { L: 'var(--conductor-l)', N: 'var(--conductor-n)', E: 'var(--conductor-e)' }
const colour = (conductor: string) => COLOURS[conductor.charAt(0)]!
const share = (id: string) => props.flow.find((one) => one.wire === id)?.share ?? 0
/** Through a place flows what flows on both of its sides. */
function through(place: string, conductor: string): number {
  const into = props.scene.cables.find((one) => one.end === place)
  const out = props.scene.cables.find((one) => one.start === place)
  const street = conductor === 'E' ? 'earthing' : `tails.${conductor}`
  const before = into ? `${into.circuit}.${conductor}` : street
  const after = out ? `${out.circuit}.${conductor}` : `plug.${conductor}`
  return Math.min(share(before), share(after))
}
const lines = computed(() => [
  ...wires.value.map((one) => ({ ...one, part: share(one.id), inside: false })),
  ...inside.value.map((one) => ({ ...one, part: through(one.place, one.conductor), inside: true })),
])
const width = (part: number) => 3 + 5 * part
const parted = (id: string) => share(id) > 0 && share(id) < 0.995
const LINKS = { line_earth: 'E', line_neutral: 'N' } as const
const linkedTo = () => LINKS[props.linked as keyof typeof LINKS]
</script>

<template>
  <g>
    <line
      v-for="one in lines"
      :key="one.id"
      :x1="one.from.x"
      :y1="one.from.y"
      :x2="one.to.x"
      :y2="one.to.y"
      :stroke="colour(one.conductor)"
      :stroke-width="width(one.part)"
      :stroke-opacity="one.inside ? 0.55 : 1"
      :class="{ flows: one.part > 0 }"
    />
    <template v-for="one in wires" :key="`share-${one.id}`">
      <text
        v-if="parted(one.id)"
        :x="(one.from.x + one.to.x) / 2"
        :y="(one.from.y + one.to.y) / 2 - 8"
        text-anchor="middle"
      >
        {{ Math.round(100 * share(one.id)) }} %
      </text>
    </template>
    <path v-if="share('beside')" :d="beside" class="beside flows" :stroke-width="width(share('beside'))" />
    <path
      v-if="linkedTo()"
      :d="link(linkedTo())"
      class="link-line"
      :class="{ flows: share(`${cable.circuit}.link`) > 0 }"
    />
  </g>
</template>

<style scoped>
text {
  font: 400 13px var(--figures);
  fill: var(--ink);
}
.link-line {
  fill: none;
  stroke: var(--copper);
  stroke-width: 5;
}
.beside {
  fill: none;
  stroke: var(--falls_short);
}
@media (prefers-reduced-motion: no-preference) {
  .flows {
    stroke-dasharray: 14 5;
    animation: runs 1.2s linear infinite;
  }
}
@keyframes runs {
  to {
    stroke-dashoffset: -38;
  }
}
</style>
