<script setup lang="ts">
// A green-yellow conductor along a path.
defineProps<{ d: string }>()
</script>

<template>
  <g><path :d="d" class="earth" /><path :d="d" class="earth-stripes" /></g>
</template>
