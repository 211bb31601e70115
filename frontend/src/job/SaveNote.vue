<script setup lang="ts">
// Whether what you see is kept: said in words, quietly, until something needs you.
import { computed } from 'vue'

import { useJob } from './useJob'

const store = useJob()
const words = computed(() => {
  if (!store.job) return ''
  if (store.saveState === 'refused') return 'Not saved: mend the marked field'
  if (store.saveState === 'conflict') return 'Not saved: choose what to keep'
  if (away.value) return `${store.isKept ? 'On this device' : 'Keep this page open'}, not yet saved: ${store.waiting}`
  if (store.held.length && store.saveState === 'saved') return `Saved, but ${count(store.held.length)}`
  return store.isSaved ? 'Saved' : 'Saving…'
})
const count = (held: number) => (held === 1 ? 'for one field' : `for ${held} fields`)
const away = computed(
  () =>
    !store.isSaved &&
    store.waiting > 0 &&
    (store.isAway || (store.problem !== undefined && store.saveState === 'unsaved')),
)
const trouble = computed(
  () => away.value || store.saveState === 'refused' || store.saveState === 'conflict' || store.held.length > 0,
)
</script>

<template>
  <p class="note" :class="{ trouble }" role="status">{{ words }}</p>
</template>

<style scoped>
.note {
  font-size: 0.8rem;
  color: #aeb4bf;
  white-space: nowrap;
}
.trouble {
  color: #ffd0a8;
  font-weight: 700;
}
</style>
