<script setup lang="ts">
// The terminals of a house, each a place to tap; one with a lead on it bears the lead's letter.
import type { Terminal } from '../api/types'

const props = defineProps<{
  terminals: (Terminal & { x: number; y: number; jack: string })[]
  active: string
  tall: boolean
  fixed: boolean
}>()
const emit = defineEmits<{ tap: [point: Terminal['point']] }>()

const LETTERS: Record<string, string> = { met: 'MET', service: '', rod: '', 'spike.P': 'P', 'spike.C': 'C', lead: '' }
const CAPTIONS: Record<string, string> = {
  service: 'services',
  rod: 'electrode',
  'spike.P': 'spike',
  'spike.C': 'spike',
  lead: 'other lead',
}
const lettersOf = (one: { point: string; jack: string }) =>
  one.jack || (LETTERS[one.point] ?? one.point.split('.')[1] ?? '')
function said(one: { words: string; jack: string }): string {
  if (one.jack) return `${one.words}, lead ${one.jack} is on it`
  return props.fixed ? one.words : `${one.words}: put lead ${props.active} here`
}
</script>

<template>
  <template v-for="one in terminals" :key="one.point">
    <g
      :role="fixed ? 'img' : 'button'"
      :tabindex="fixed ? undefined : 0"
      :class="{ terminal: !fixed, taken: one.jack }"
      :aria-label="said(one)"
      :transform="`translate(${one.x} ${one.y})`"
      @click="fixed || emit('tap', one.point)"
      @keydown.enter.prevent="fixed || emit('tap', one.point)"
      @keydown.space.prevent="fixed || emit('tap', one.point)"
    >
      <circle r="25" class="reach" />
      <circle r="13" class="dot" />
    </g>
    <g :transform="`translate(${one.x} ${one.y})`" aria-hidden="true" class="letters" :class="{ taken: one.jack }">
      <text y="5" text-anchor="middle" :class="{ long: lettersOf(one).length > 2 }">{{ lettersOf(one) }}</text>
      <text
        v-if="CAPTIONS[one.point]"
        :x="tall ? 20 : 0"
        :y="tall ? 5 : 30"
        :text-anchor="tall ? 'start' : 'middle'"
        class="caption"
      >
        {{ CAPTIONS[one.point] }}
      </text>
    </g>
  </template>
</template>

<style scoped>
.terminal {
  cursor: pointer;
}
.reach {
  fill: transparent;
}
.dot {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 2;
}
.letters {
  pointer-events: none;
}
.letters text {
  font: 700 14px var(--figures);
  fill: var(--ink);
}
.letters .long {
  font-size: 10px;
}
.letters .caption {
  font: 400 13px var(--text);
  fill: var(--quiet);
}
.taken .dot {
  fill: var(--ink);
}
.letters.taken text:not(.caption) {
  fill: var(--paper);
}
.terminal:hover .dot,
.terminal:focus-visible .dot {
  stroke: var(--copper);
  stroke-width: 4;
}
.terminal:focus-visible {
  outline: none;
}
</style>
