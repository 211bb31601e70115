<script setup lang="ts">
// What was just done, taken back or done again; it goes away by itself, and its buttons stay in the bar above.
import { useTimeoutFn } from '@vueuse/core'
import { computed, watch } from 'vue'

import { leadTo, isPlaceKnown } from '../shared/fieldPlaces'
import { useJob } from './useJob'

const STAYS_MS = 8000
const SAID = { done: 'Done', undone: 'Undone', redone: 'Done again', stays: 'Not undone' }

const store = useJob()
const told = computed(() => store.toldOf)
const away = useTimeoutFn(() => (store.toldOf = undefined), STAYS_MS, { immediate: false })
watch(told, () => (told.value ? away.start() : away.stop()), { immediate: true })

const field = computed(() => told.value?.deed?.parts.find((one) => isPlaceKnown(one.field))?.field)
/** Who is led there has read it. */
function show(path: string): void {
  store.toldOf = undefined
  void leadTo(store.id, path)
}
const why = computed(() => {
  if (told.value?.kind !== 'stays') return ''
  return told.value.deed?.parts.length ? 'it was changed since' : 'it stays, and a new entry can follow it'
})
</script>

<template>
  <div
    v-if="told"
    class="told"
    role="region"
    aria-label="Just done"
    aria-live="polite"
    @pointerenter="away.stop()"
    @pointerleave="away.start()"
  >
    <span
      >{{ SAID[told.kind] }}: {{ told.words }}<template v-if="why">; {{ why }}</template></span
    >
    <button v-if="told.kind === 'done' || told.kind === 'redone'" type="button" class="link" @click="store.undo()">
      Undo
    </button>
    <button v-if="told.kind === 'undone'" type="button" class="link" @click="store.redo()">Redo</button>
    <button v-if="told.kind !== 'done' && field" type="button" class="link" @click="show(field)">Show</button>
    <router-link
      v-if="told.kind === 'stays' && told.deed?.step"
      class="link"
      :to="{
        name: told.deed.step.split(' ')[0],
        params: { id: store.id },
        query: { step: told.deed.step.split(' ')[1] },
      }"
      >Go to it</router-link
    >
  </div>
</template>

<style scoped>
.told {
  position: fixed;
  inset: auto 0 0;
  display: flex;
  justify-content: center;
  align-items: center;
  gap: 4px 18px;
  min-height: 46px;
  padding: 4px 20px;
  background: rgb(var(--v-theme-bar));
  color: #f5f0e8;
  z-index: 5;
}
/* Never over the keys that figures are entered with. */
@media (max-width: 839px) {
  .told {
    inset: 0 0 auto;
  }
}
/* As wide as its words, however long what it stands beside is. */
.link {
  flex: none;
  white-space: nowrap;
  color: #f0a77c;
  min-height: 44px;
  padding: 0 8px;
}
a.link {
  display: grid;
  align-items: center;
}
</style>
