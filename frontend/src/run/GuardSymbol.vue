<script setup lang="ts">
// The symbol of a guard, 24 px square, as circuit diagrams draw it: a contact that opens, and what makes it open.
// Its caption beside it says the same in words.
defineProps<{ kind: string }>()
</script>

<template>
  <g class="symbol">
    <template v-if="kind === 'fuse' || kind === 'rewirable'">
      <rect x="-6" y="-11" width="12" height="22" rx="1.5" class="body" />
      <path d="M0 -11V11" />
    </template>
    <template v-else-if="kind === 'dc_detector'">
      <circle r="10.5" class="body" />
      <path d="M-6 -2.5H6M-6 3h3M-1.5 3h3M3 3h3" />
    </template>
    <template v-else>
      <path d="M0 -12V-6M0 12V5L-8 -5" />
      <path v-if="['breaker', 'rcbo', 'moulded_case'].includes(kind)" d="M-3 -9l6 6m0 -6l-6 6" />
      <ellipse v-if="kind === 'rccb' || kind === 'rcbo'" cy="8" rx="8" ry="3.2" />
      <path v-if="kind === 'open_pen_device'" d="M5 2H11M6.5 5H9.5M8 -4V2" />
    </template>
  </g>
</template>

<style scoped>
.symbol {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
  stroke-linecap: round;
}
.body {
  fill: var(--sheet);
}
</style>
