<script setup lang="ts">
// The meter by its face: smart with its radio, figures only, or a turning disc.
defineProps<{ kind: string }>()
</script>

<template>
  <svg viewBox="0 0 140 120" class="drawing">
    <rect x="30" y="10" width="80" height="84" rx="8" class="body" />
    <path d="M48 94v20M92 94v20" class="thin stroke-5" />
    <template v-if="kind === 'dial'">
      <rect x="42" y="22" width="56" height="18" class="shade" />
      <text x="48" y="36">4 7 1 9</text>
      <rect x="42" y="54" width="56" height="12" class="shade" />
      <path d="M42 60h56" class="thin" />
      <rect x="62" y="57" width="10" height="6" class="solid" />
    </template>
    <template v-else>
      <rect x="42" y="24" width="56" height="26" rx="2" class="shade" />
      <text x="49" y="42">04719.2</text>
      <circle cx="52" cy="68" r="4" class="solid" />
      <g v-if="kind === 'smart'">
        <circle cx="84" cy="68" r="5" class="body" />
        <circle cx="98" cy="68" r="5" class="body" />
        <path d="M112 20q10 -8 0 -16M118 26q18 -14 0 -28" class="thin" transform="translate(-2 6)" />
      </g>
    </template>
  </svg>
</template>

<style src="./drawings.css" />
