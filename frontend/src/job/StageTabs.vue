<script setup lang="ts">
// The stages of the work, each with how many things the certificate still needs of it.
import { nextTick, onMounted, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'

import { STAGE_WORDS } from './stages'
import type { Stage } from './useNext'

defineProps<{ id: number; left?: (stage: Stage) => number }>()

const route = useRoute()
const nav = useTemplateRef<HTMLElement>('nav')

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
    <router-link v-for="(words, name) in STAGE_WORDS" :key="name" :to="{ name, params: { id } }">
      {{ words }}
      <span class="count figure"
        ><template v-if="left"
          >{{ left(name) || '✓' }}<span class="sr-only">{{ left(name) ? ' to do' : 'nothing to do' }}</span></template
        ></span
      >
    </router-link>
  </nav>
</template>

<style scoped>
nav {
  /* What is said to readers alone scrolls with it, and makes no page wider. */
  position: relative;
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
/* As wide before it is told as after. */
a .count {
  display: inline-block;
  min-width: 2.2ch;
  font-size: 0.85rem;
  color: #cfd3da;
  margin-left: 2px;
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
