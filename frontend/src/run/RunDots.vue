<script setup lang="ts">
// The run folded for a phone: where you stand on the chain, and the three results.
import { computed } from 'vue'

import type { RunProfile } from '../api/types'
import { verdictWords } from '../shared/format'

const props = defineProps<{ profile: RunProfile; at?: string }>()

// Cut-out, boards and charge point by name; sections and joints are small dots between them.
const places = computed(() => {
  const AT: Record<string, string> = { cut_out: 'origin', charge_point: 'charge point' }
  const nodes = props.profile.nodes.map((node, index) => ({
    key: `n${index}`,
    order: node.kind === 'cut_out' ? -1 : node.at_m,
    at: AT[node.kind] ?? (node.at_m ? node.name : 'board'),
    name:
      node.kind === 'charge_point'
        ? 'Charge point'
        : node.kind === 'board' && node.at_m === 0
          ? 'Board'
          : node.kind.endsWith('box')
            ? ''
            : node.name,
  }))
  const inner = props.profile.sections.map((section) => ({
    key: `s${section.index}`,
    name: '',
    at: '',
    order: (section.from_m + section.to_m) / 2,
  }))
  return [...nodes, ...(inner.length > 12 ? [] : inner)].sort((one, other) => one.order - other.order)
})
const here = (at: string) => at !== '' && (props.at ?? '').endsWith(at)
</script>

<template>
  <div class="dots">
    <ol class="chain" aria-label="The run, from cut-out to charge point">
      <li v-for="place in places" :key="place.key" :class="{ minor: !place.name, here: here(place.at) }">
        <span class="dot" aria-hidden="true" />
        <span class="name">{{ place.name }}<span v-if="here(place.at)" class="sr-only"> (you are here)</span></span>
      </li>
    </ol>
    <p v-if="!at" class="figure results">
      protection {{ verdictWords({ verdict: profile.protection_verdict }).toLowerCase() }}
    </p>
  </div>
</template>

<style scoped>
.dots {
  padding: 14px 16px 8px;
}
.chain {
  display: flex;
  justify-content: space-between;
  list-style: none;
  margin: 0;
  padding: 0;
  position: relative;
}
.chain::before {
  content: '';
  position: absolute;
  left: 8px;
  right: 8px;
  top: 6px;
  height: 4px;
  background: var(--copper);
}
li {
  position: relative;
  display: flex;
  flex-direction: column;
  align-items: center;
  flex: 0 1 auto;
  min-width: 0;
}
li:first-child {
  align-items: flex-start;
}
li:last-child {
  align-items: flex-end;
}
.dot {
  width: 16px;
  height: 16px;
  border-radius: 50%;
  background: var(--copper);
  border: 3px solid var(--copper);
}
.minor .dot {
  width: 8px;
  height: 8px;
  margin-top: 4px;
}
.here .dot {
  background: var(--sheet);
}
.here .name {
  font-weight: 700;
}
.name {
  font-size: 0.8rem;
  margin-top: 4px;
}
.results {
  font-size: 0.85rem;
  color: var(--quiet);
  padding-right: 80px;
}
</style>
