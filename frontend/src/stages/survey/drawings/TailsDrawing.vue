<script setup lang="ts">
// Tails with and without brown and blue marking.
defineProps<{ sleeved: boolean }>()
</script>

<template>
  <svg viewBox="0 0 140 80" class="drawing">
    <rect x="4" y="16" width="34" height="48" rx="3" class="body" />
    <rect x="102" y="16" width="34" height="48" rx="3" class="body" />
    <path d="M38 30H102" class="plain stroke-8" />
    <path d="M38 50H102" class="plain stroke-8" />
    <template v-if="sleeved">
      <path d="M40 30H58M84 30H100" class="live stroke-8" />
      <path d="M40 50H58M84 50H100" class="neutral stroke-8" />
    </template>
    <text v-else x="70" y="76" text-anchor="middle" class="note">which is which?</text>
  </svg>
</template>

<style src="./drawings.css" />
