<script setup lang="ts">
// A looped service: a second thick cable leaves the cut-out for the neighbour.
defineProps<{ looped: boolean }>()
</script>

<template>
  <svg viewBox="0 0 180 130" class="drawing">
    <rect x="0" y="112" width="180" height="18" class="ground" />
    <path d="M56 130V76" class="service" />
    <path v-if="looped" d="M84 76V96Q84 104 94 104H180" class="service" />
    <path d="M58 34V6" class="live" />
    <path d="M82 34V6" class="neutral" />
    <rect x="38" y="32" width="64" height="48" rx="4" class="body" />
    <rect x="52" y="40" width="36" height="20" rx="2" class="shade" />
    <circle cx="70" cy="50" r="3" class="solid" />
    <g v-if="looped">
      <circle cx="70" cy="84" r="27" class="here" />
      <path d="M132 92V70l17-14 17 14v22z" class="body" />
      <path d="M144 92V78h10v14" class="thin" />
      <text x="112" y="46" class="note">to next door</text>
    </g>
    <text v-else x="112" y="60" class="note">one cable in</text>
  </svg>
</template>

<style src="./drawings.css" />
