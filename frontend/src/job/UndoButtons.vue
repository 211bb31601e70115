<script setup lang="ts">
// One step back and one forth, at every stage; each names what it would take back or do again.
import { mdiRedo, mdiUndo } from '@mdi/js'
import { useEventListener } from '@vueuse/core'
import { computed } from 'vue'

import { isDialogOpen } from '../shared/keys'
import { useJob } from './useJob'

const store = useJob()
const buttons = computed(() => [
  { icon: mdiUndo, name: 'Undo', keys: 'Ctrl+Z', deed: store.done.at(-1), press: () => store.undo() },
  { icon: mdiRedo, name: 'Redo', keys: 'Ctrl+Shift+Z', deed: store.undone.at(-1), press: () => store.redo() },
])

// What is typed into a field of the job is taken back as a whole; what stands in no job yet, the browser takes back.
const isJobs = (target: EventTarget | null) =>
  !(target instanceof Element) || target.closest('input[type="text"], textarea') === null || isField(target)
const isField = (target: Element) => target.closest('[data-job-field]') !== null

useEventListener(window, 'keydown', (event) => {
  const [key, control] = [event.key.toLowerCase(), event.ctrlKey || event.metaKey]
  const back = key === 'z' && !event.shiftKey
  const forth = (key === 'z' && event.shiftKey) || key === 'y'
  if (!control || event.altKey || !(back || forth) || isDialogOpen() || !isJobs(event.target)) return
  event.preventDefault()
  if (back) store.undo()
  else store.redo()
})
</script>

<template>
  <div class="undo" role="group" aria-label="Undo and redo">
    <v-btn
      v-for="one in buttons"
      :key="one.name"
      :icon="one.icon"
      variant="text"
      size="small"
      :disabled="!one.deed"
      :aria-label="`${one.name}, ${one.keys}`"
      :title="one.deed && `${one.name}: ${one.deed.words}`"
      :aria-keyshortcuts="one.keys.replace('Ctrl', 'Control')"
      @click="one.press()"
    />
  </div>
</template>

<style scoped>
.undo {
  display: flex;
  flex: none;
}
.undo :deep(.v-btn) {
  width: 44px;
  height: 44px;
}
</style>
