<script setup lang="ts">
// The run as one line above every stage: what opens, where something is still needed, where you are. A tap goes there.
import { onKeyStroke, useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'

import type { GuardView, Job, RunProfile } from '../api/types'
import { isTyping } from '../shared/keys'
import StripPlace from './StripPlace.vue'
import { type Place, useStrip } from './useStrip'

const props = defineProps<{
  job: Job
  profile?: RunProfile
  guards: readonly GuardView[]
  point: string
  /** The id of the place where you are, or its kind. */
  at: string
  unfolded: boolean
  left: (nodes: readonly string[]) => number
}>()
const emit = defineEmits<{ go: [node: Place]; unfold: [] }>()

const box = useTemplateRef<HTMLElement>('box')
const { width } = useElementSize(box, { width: window.innerWidth, height: 0 })
const { nodes, routes, endX, narrow, named, opened } = useStrip(
  () => props.job,
  () => props.profile,
  () => props.guards,
  () => props.point,
  width,
)
const places = computed(() =>
  [...nodes.value.map((node, place) => ({ node, place })), ...routes.value.map((node) => ({ node, place: -1 }))].sort(
    (one, other) => one.node.x - other.node.x,
  ),
)
// By its id, or the first of its kind: the walk ends at the origin's board.
const here = computed(() => {
  const all = places.value.map((one) => one.node)
  return all.find((one) => one.key === props.at) ?? all.find((one) => one.kind === props.at)
})

onKeyStroke('r', (event) => {
  if (isTyping(event) || !props.profile) return
  event.preventDefault()
  emit('unfold')
})
</script>

<template>
  <nav ref="box" class="strip" :class="{ narrow, 'no-route': !profile }" aria-label="Along the run">
    <span class="copper" :style="{ left: `${nodes[0]!.x}px`, width: `${endX - nodes[0]!.x}px` }" aria-hidden="true" />
    <StripPlace
      v-for="{ node, place } in places"
      :key="`${node.kind}/${node.key}`"
      :node="node"
      :name="place < 0 || named(place) ? node.name : ''"
      :opens="place < 0 ? '' : opened(place)"
      :left="left([node.key])"
      :here="node === here"
      @go="$emit('go', node)"
    />
    <svg
      v-if="!narrow"
      class="car"
      :style="{ left: `${endX + 20}px` }"
      viewBox="0 0 66 26"
      width="66"
      height="26"
      aria-hidden="true"
    >
      <path d="M0 4 q 12 2 16 8" class="lead" />
      <path d="M14 24 l 0 -8 l 9 -1 l 7 -8 l 19 0 l 8 8 l 7 2 l 0 7 z" />
    </svg>
    <button
      v-if="profile"
      type="button"
      class="unfold"
      :aria-expanded="unfolded"
      aria-keyshortcuts="r"
      @click="$emit('unfold')"
    >
      <span class="sr-only">{{ unfolded ? 'Fold the run' : 'Unfold the run' }}</span>
      <span v-if="!narrow" aria-hidden="true">Run <kbd>R</kbd></span>
      <svg v-else viewBox="0 0 12 12" width="16" height="16" aria-hidden="true"><path d="M2 4l4 4 4-4" /></svg>
    </button>
  </nav>
</template>

<style scoped>
.strip {
  position: relative;
  height: 62px;
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
  overflow: hidden;
}
.copper {
  position: absolute;
  top: 24px;
  height: 4px;
  background: var(--copper);
}
.no-route .copper {
  background: repeating-linear-gradient(90deg, var(--copper) 0 8px, transparent 8px 14px);
}
.car {
  position: absolute;
  top: 14px;
  fill: var(--ink);
}
.car .lead {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
}
.unfold {
  position: absolute;
  right: 16px;
  top: 12px;
  min-height: 38px;
  padding: 4px 12px;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--sheet);
  color: inherit;
  font: inherit;
  font-size: 15px;
  cursor: pointer;
}
.unfold[aria-expanded='true'] {
  border-color: var(--ink);
}
.unfold path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 2;
}
.unfold[aria-expanded='true'] svg {
  transform: rotate(180deg);
}
.narrow .unfold {
  right: 4px;
  top: 8px;
  width: 44px;
  min-height: 44px;
  padding: 0;
  border-color: transparent;
}
</style>
