<script setup lang="ts">
// How far somebody is who looks for other ways, whether there is something to show, and an end to it; nothing once
// everything was tried.
import type { SoFar } from './useLooking'

defineProps<{ soFar?: SoFar<unknown>; busy: boolean; some: boolean }>()
defineEmits<{ stop: [] }>()

const count = (value: number) => value.toLocaleString('en-GB')
</script>

<template>
  <p v-if="busy" class="looking" role="group" aria-label="How far it is">
    <span v-if="soFar?.state === 'waits'">Waits: two others are being worked out.</span>
    <span v-else-if="soFar?.of"
      >Tried {{ count(soFar.tried) }} of {{ count(soFar.of) }}: {{ some ? 'the best so far.' : 'nothing yet.' }}</span
    >
    <span v-else>Working it out…</span>
    <button v-if="soFar" type="button" class="link" @click="$emit('stop')">Stop</button>
  </p>
  <p v-else-if="soFar?.state === 'stopped'" class="looking" role="note">
    <template v-if="soFar.tried"
      >Stopped after {{ count(soFar.tried) }} of {{ count(soFar.of) }}: what was not tried may be better.</template
    >
    <template v-else>Stopped before anything was tried.</template>
  </p>
</template>

<style scoped>
.looking {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  color: var(--quiet);
}
</style>
