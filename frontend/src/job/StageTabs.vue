<script setup lang="ts">
// The stages of the work, each with how much of it is settled.
import { computed, nextTick, onMounted, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'

import type { Stage } from '../api/types'
import { useJob } from './useJob'

defineProps<{ id: number }>()

const store = useJob()
const route = useRoute()
const nav = useTemplateRef<HTMLElement>('nav')

function settled(stage: Stage): string {
  const found = store.evaluation!.progress.find((one) => one.stage === stage)
  return found ? `${found.done}/${found.every}` : ''
}
const tabs = computed(() => [
  { name: 'survey', words: 'Survey', count: settled('survey') },
  { name: 'design', words: 'Design', count: settled('design') },
  { name: 'dead', words: 'Dead tests', count: settled('dead') },
  { name: 'live', words: 'Live tests', count: settled('live') },
  { name: 'papers', words: 'Papers', count: '' },
])

// On a phone the bar scrolls sideways: keep the stage you are in, in view.
async function reveal(): Promise<void> {
  await nextTick()
  nav.value?.querySelector('[aria-current]')?.scrollIntoView({ inline: 'center', block: 'nearest' })
}
onMounted(reveal)
watch(() => route.name, reveal)
</script>

<template>
  <nav ref="nav" aria-label="Stages">
    <router-link v-for="tab in tabs" :key="tab.name" :to="{ name: tab.name, params: { id } }">
      {{ tab.words }} <span v-if="tab.count" class="figure">{{ tab.count }}</span>
    </router-link>
  </nav>
</template>

<style scoped>
nav {
  margin-left: auto;
  display: flex;
  gap: 4px;
  overflow-x: auto;
  scrollbar-width: none;
}
a {
  color: #cfd3da;
  text-decoration: none;
  padding: 12px 12px 8px;
  border-bottom: 4px solid transparent;
  white-space: nowrap;
  font-size: 0.95rem;
}
a .figure {
  font-size: 0.85rem;
  color: #aeb4bf;
  margin-left: 4px;
}
a.router-link-active {
  color: #fff;
  font-weight: 700;
  border-bottom-color: #e08a5c;
}
@media (max-width: 839px) {
  nav {
    margin: 0 -14px;
    padding: 0 6px;
    flex: 1 0 100%;
  }
}
</style>
