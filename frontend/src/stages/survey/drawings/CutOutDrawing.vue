<script setup lang="ts">
// The cut-out from outside: sound, old, or damaged.
defineProps<{ condition: string }>()
</script>

<template>
  <svg viewBox="0 0 140 120" class="drawing">
    <path d="M70 120V90" class="service" />
    <g v-if="condition === 'old'">
      <path d="M34 24h72l8 10v50l-8 10H34l-8-10V34z" class="body stroke-4" />
      <circle cx="37" cy="37" r="4" class="solid" />
      <circle cx="103" cy="37" r="4" class="solid" />
      <circle cx="37" cy="81" r="4" class="solid" />
      <circle cx="103" cy="81" r="4" class="solid" />
      <path d="M54 48h32M54 60h32" class="thin" />
      <path d="M58 94q2 10 5 0t7 0q3 18 6 0z" class="solid" />
    </g>
    <g v-else>
      <rect x="36" y="24" width="68" height="68" rx="5" class="body" />
      <rect x="48" y="36" width="44" height="26" rx="2" class="shade" />
      <circle cx="70" cy="49" r="3.5" class="solid" />
      <g v-if="condition === 'sound'">
        <path d="M70 62v14" class="thin" />
        <circle cx="70" cy="80" r="5" class="body" />
      </g>
      <g v-else>
        <path d="M92 24l-14 20 10 8-16 22 8 18" class="thin stroke-3" />
        <path d="M36 70q10-8 14 2t12 4q-2 12-10 16H40q-4 0-4-4z" class="solid" opacity="0.75" />
      </g>
    </g>
    <path d="M60 24V6" class="live" />
    <path d="M80 24V6" class="neutral" />
  </svg>
</template>

<style src="./drawings.css" />
