<script setup lang="ts">
// The marks that IEC 60755 gives to residual-current devices by the waveforms they see, and S for time-delayed.
defineProps<{ type: string }>()

const SINE = 'M10 0C15 -16 20 -16 25 0S35 16 40 0'
const PULSES = 'M10 0C13 -15 19 -15 22 0H28C31 -15 37 -15 40 0'
const FAST = 'M8 0q2.5 -14 5 0t5 0 5 0 5 0 5 0 5 0 4 0'
const SEES: Record<string, string[]> = {
  none: [],
  AC: ['sine'],
  A: ['pulsed'],
  F: ['pulsed', 'fast'],
  B: ['pulsed', 'fast', 'smooth'],
  S: ['delay'],
}
</script>

<template>
  <svg viewBox="0 0 160 56" class="drawing">
    <text v-if="!SEES[type]?.length" x="80" y="33" text-anchor="middle" class="note">no RCD before it</text>
    <g
      v-for="(mark, index) in SEES[type] ?? []"
      :key="mark"
      :transform="`translate(${80 - (SEES[type]!.length * 52) / 2 + index * 52} 28)`"
    >
      <rect x="1" y="-24" width="48" height="48" class="body" />
      <path v-if="mark === 'sine'" :d="SINE" class="thin stroke-2-6" />
      <template v-else-if="mark === 'pulsed'">
        <path :d="SINE" class="thin stroke-2-2" transform="translate(0 -9) scale(1 .72)" />
        <path :d="PULSES" class="thin stroke-2-2" transform="translate(0 19)" />
      </template>
      <path v-else-if="mark === 'fast'" :d="FAST" class="thin stroke-2" />
      <template v-else-if="mark === 'smooth'">
        <path d="M9 -5H41" class="thin stroke-2-6" />
        <path d="M9 5h7m5 0h7m5 0h8" class="thin stroke-2-6" />
      </template>
      <text class="text-26" v-else x="25" y="9" text-anchor="middle">S</text>
    </g>
  </svg>
</template>

<style src="./drawings.css" />
