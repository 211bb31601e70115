<script setup lang="ts">
// The three earthing arrangements by the one place that tells them apart, ringed: where the earth conductor starts.
import EarthWire from './EarthWire.vue'

defineProps<{ earthing: string }>()
</script>

<template>
  <svg viewBox="0 0 180 160" class="drawing">
    <rect x="0" y="140" width="180" height="20" class="ground" />
    <g v-if="earthing === 'tn_s'">
      <path d="M64 160V92" class="metal" />
      <path d="M64 160V92" class="metal-ribs" />
    </g>
    <path v-else d="M64 160V92" class="service" />
    <path d="M54 44V8" class="live" />
    <path d="M76 44V8" class="neutral" />
    <rect x="38" y="42" width="54" height="54" rx="4" class="body" />
    <rect x="48" y="52" width="34" height="22" rx="2" class="shade" />
    <circle cx="65" cy="63" r="3" class="solid" />
    <rect x="138" y="10" width="30" height="24" rx="2" class="body" />
    <path d="M145 16v12M153 16v12M161 16v12" class="thin" />
    <template v-if="earthing === 'tn_c_s'">
      <EarthWire d="M92 84H153V34" />
      <circle cx="94" cy="84" r="14" class="here" />
      <text x="92" y="122" class="note">out of the</text>
      <text x="92" y="136" class="note">block’s side</text>
    </template>
    <template v-else-if="earthing === 'tn_s'">
      <rect x="54" y="108" width="20" height="11" rx="2" class="body" />
      <EarthWire d="M74 113H153V34" />
      <circle cx="66" cy="113" r="17" class="here" />
      <text x="96" y="134" class="note">clamp on its</text>
      <text x="96" y="148" class="note">metal sheath</text>
    </template>
    <template v-else>
      <EarthWire d="M153 34V128" />
      <path d="M153 126V158" class="thin stroke-5" />
      <circle cx="153" cy="140" r="15" class="here" />
      <text x="78" y="116" class="note">only a rod</text>
      <text x="78" y="130" class="note">in the soil</text>
    </template>
  </svg>
</template>

<style src="./drawings.css" />
