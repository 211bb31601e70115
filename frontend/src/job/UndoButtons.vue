<script setup lang="ts">
// One step back and one forth, at every stage; each names what it would take back or do again.
import { mdiRedo, mdiUndo } from '@mdi/js'
import { useEventListener } from '@vueuse/core'
import { computed } from 'vue'

import { isDialogOpen } from '../shared/keys'
import { useJob } from './useJob'

const store = useJob()
const last = computed(() => store.done.at(-1))
const next = computed(() => store.undone.at(-1))

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
      :icon="mdiUndo"
      variant="text"
      size="small"
      :disabled="!last"
      aria-label="Undo, Ctrl+Z"
      :title="last ? `Undo: ${last.words}` : undefined"
      aria-keyshortcuts="Control+Z"
      @click="store.undo()"
    />
    <v-btn
      :icon="mdiRedo"
      variant="text"
      size="small"
      :disabled="!next"
      aria-label="Redo, Ctrl+Shift+Z"
      :title="next ? `Redo: ${next.words}` : undefined"
      aria-keyshortcuts="Control+Shift+Z"
      @click="store.redo()"
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
