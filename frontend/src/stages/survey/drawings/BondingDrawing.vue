<script setup lang="ts">
// The main bonding clamp: close to where the pipe comes in and before any branch, or not.
import EarthWire from './EarthWire.vue'

defineProps<{ near: boolean }>()
</script>

<template>
  <svg viewBox="0 0 170 110" class="drawing">
    <rect x="0" y="92" width="170" height="18" class="ground" />
    <path d="M40 110V22H170" class="metal stroke-9" />
    <path d="M118 22V62" class="metal stroke-9" />
    <path d="M30 74h20M40 74v-8" class="thin stroke-4" />
    <template v-if="near">
      <rect x="32" y="44" width="16" height="11" rx="2" class="body" />
      <EarthWire d="M48 50H104V108" />
      <circle cx="40" cy="50" r="16" class="here" />
      <text x="56" y="42" class="note">within 600 mm</text>
    </template>
    <template v-else>
      <rect x="140" y="16" width="11" height="14" rx="2" class="body" />
      <EarthWire d="M146 30V108" />
      <circle cx="146" cy="24" r="16" class="here" />
      <text x="52" y="84" class="note">past a branch</text>
    </template>
  </svg>
</template>

<style src="./drawings.css" />
