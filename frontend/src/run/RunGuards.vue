<script setup lang="ts">
// The guards of the run in a row beneath the chain, a thin line from each to where it stands.
import GuardSymbol from './GuardSymbol.vue'
import type { RailPlace } from './useGuardRail'

defineProps<{ places: RailPlace[]; chainY: number; top: number }>()
</script>

<template>
  <g class="guards">
    <g v-for="place in places" :key="place.guard.field">
      <path :d="`M${place.from} ${chainY} V${chainY + 10} L${place.x} ${top - 4}`" class="leader" />
      <g :transform="`translate(${place.x} ${top + 12})`"><GuardSymbol :kind="place.guard.kind" /></g>
      <text
        v-for="(line, index) in place.lines"
        :key="index"
        :x="place.x"
        :y="top + 39 + index * 13"
        text-anchor="middle"
        class="caption"
      >
        {{ line }}
      </text>
    </g>
  </g>
</template>

<style scoped>
.leader {
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1;
}
.run-band text.caption {
  font: 400 12px var(--figures);
}
</style>
