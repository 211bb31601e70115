<script setup lang="ts">
// The way from the street to the car: every conductor, the terminals that leads go to, what is linked, what flows.
// Letters say which conductor and which lead; colour only repeats them.
import { computed } from 'vue'
import { useDisplay } from 'vuetify'

import type { Flow, Scene, Terminal } from '../api/types'
import HouseTerminals from './HouseTerminals.vue'
import HouseWires from './HouseWires.vue'
import { useHouseDrawing } from './useHouseDrawing'

const props = defineProps<{
  scene: Scene
  circuit: string
  leads: Record<string, string[]>
  linked: string
  flow: Flow[]
  setWords: string
  active: string
  /** Only looked at: no terminal takes a lead. */
  fixed?: boolean
}>()
defineEmits<{ tap: [point: Terminal['point']] }>()

const { smAndDown } = useDisplay()
const drawing = useHouseDrawing(
  () => props.scene,
  () => props.circuit,
  () => smAndDown.value,
)
const { places, size, spotOf, terminals } = drawing
const jackOn = (point: string) =>
  Object.keys(props.leads)
    .filter((jack) => props.leads[jack]!.includes(point))
    .join(' ')
const at = computed(() => terminals.value.map((one) => ({ ...one, ...spotOf(one), jack: jackOn(one.point) })))
const jacks = computed(() => Object.keys(props.leads))
const setBox = computed(() => {
  const width = Math.max(260, jacks.value.length * 90)
  return { x: size.value.width / 2 - width / 2, y: size.value.height - 50, width, height: 46 }
})
const jackX = (place: number) => setBox.value.x + ((place + 0.5) * setBox.value.width) / jacks.value.length
const strings = computed(() =>
  jacks.value.flatMap((jack, place) =>
    at.value
      .filter((one) => props.leads[jack]!.includes(one.point))
      .map((one) => {
        const [x, y] = [jackX(place), setBox.value.y]
        return `M${x} ${y} C${x} ${y - 60} ${one.x} ${one.y + 70} ${one.x} ${one.y + 12}`
      }),
  ),
)
const told = computed(() => {
  const placed = at.value.filter((one) => one.jack).map((one) => `${one.jack} on ${one.words}`)
  return `The house from the street to the car. Leads: ${placed.join(', ') || 'none placed'}.`
})
</script>

<template>
  <svg
    :viewBox="`0 0 ${size.width} ${size.height}`"
    class="house"
    :class="{ tall: smAndDown }"
    role="group"
    :aria-label="told"
  >
    <g v-for="one in places" :key="one.key">
      <rect :x="one.x" :y="one.y" :width="one.width" :height="one.height" rx="10" class="place" />
      <text :x="one.name_x" :y="one.name_y" class="name" :text-anchor="smAndDown ? 'start' : 'middle'">
        {{ one.name }}
      </text>
    </g>
    <HouseWires :drawing="drawing" :scene="scene" :flow="flow" :linked="linked" />
    <template v-if="!smAndDown && jacks.length">
      <path v-for="(path, place) in strings" :key="place" :d="path" class="string" />
      <rect v-bind="setBox" rx="8" class="set" />
      <text :x="size.width / 2" :y="setBox.y + 19" text-anchor="middle" class="set-words">{{ setWords }}</text>
      <text
        v-for="(jack, place) in jacks"
        :key="jack"
        :x="jackX(place)"
        :y="setBox.y + 38"
        text-anchor="middle"
        class="jack"
      >
        {{ jack }}
      </text>
    </template>
    <HouseTerminals
      :terminals="at"
      :active="active"
      :tall="smAndDown"
      :fixed="fixed ?? false"
      @tap="$emit('tap', $event)"
    />
  </svg>
</template>

<style scoped>
.house {
  width: 100%;
  max-height: 46vh;
  display: block;
}
.house.tall {
  max-height: none;
}
.place {
  fill: var(--sheet);
  stroke: var(--line);
  stroke-width: 2;
}
.name {
  font: 700 16px var(--text);
  fill: var(--ink);
}
.string {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
  opacity: 0.75;
}
.set {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 2;
}
.set-words {
  font: 400 15px var(--text);
  fill: var(--quiet);
}
.jack {
  font: 700 16px var(--figures);
  fill: var(--ink);
}
</style>
