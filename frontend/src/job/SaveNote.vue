<script setup lang="ts">
// Whether what you see is kept: said in words, quietly, until something needs you.
import { computed } from 'vue'

import { useJob } from './useJob'

const store = useJob()
const words = computed(() => {
  if (!store.job) return ''
  if (store.saveState === 'refused') return 'Not saved: mend the marked field'
  if (store.saveState === 'conflict') return 'Not saved: somebody else saved'
  if (store.problem && store.saveState === 'unsaved') return 'No answer; kept here, trying again'
  return { saved: 'Saved', saving: 'Saving…', unsaved: 'Saving…' }[store.saveState]
})
const trouble = computed(() => words.value.startsWith('N'))
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
