<script setup lang="ts">
// What was just applied at one press, and one press to take it back.
import { computed } from 'vue'

import { useJob } from './useJob'

const store = useJob()
const last = computed(() => store.applied.at(-1))
</script>

<template>
  <div v-if="last" class="undo" role="status">
    <span>Taken: {{ last.words }}</span>
    <button type="button" class="link" @click="store.undo()">Undo</button>
  </div>
</template>

<style scoped>
.undo {
  position: sticky;
  bottom: 0;
  display: flex;
  justify-content: center;
  align-items: center;
  gap: 18px;
  min-height: 46px;
  padding: 4px 20px;
  background: rgb(var(--v-theme-bar));
  color: #f5f0e8;
  z-index: 5;
}
.undo .link {
  color: #f0a77c;
  min-height: 44px;
  padding: 0 8px;
}
</style>
