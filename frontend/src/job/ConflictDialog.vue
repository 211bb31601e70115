<script setup lang="ts">
// Both sides changed the same fields: each by its name, with both values, whose and when; settled one by one.
import { computed, ref, watch } from 'vue'

import type { Difference } from '../api/types'
import { nameOnScreen } from '../shared/fieldPlaces'
import { valueWords } from '../shared/valueWords'
import { useJob } from './useJob'

const SHORT = { day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' } as const

const store = useJob()
const kept = ref<Record<string, 'mine' | 'theirs'>>({})
watch(
  () => store.conflict,
  () => (kept.value = {}),
)
const asked = computed(() => store.conflict?.asked ?? [])
const left = computed(() => asked.value.filter((one) => !kept.value[one.field]).length)
const when = computed(() => (store.conflict?.at ? new Date(store.conflict.at).toLocaleString('en-GB', SHORT) : ''))
const whose = computed(() => {
  if (store.conflict?.here) return 'in another tab of this browser'
  return store.conflict?.by
    ? `by ${store.conflict.by} (name as typed)`
    : 'on another device, by somebody who gave no name'
})
/** Where it stands, and its name as this screen shows it. */
function nameOf(one: Difference): string {
  return [one.where, nameOnScreen(one.field) ?? one.name].filter(Boolean).join(': ')
}
function settle(): void {
  store.resolveConflict(asked.value.map((one) => one.field).filter((field) => kept.value[field] === 'mine'))
}
</script>

<template>
  <v-dialog :model-value="store.conflict !== undefined" persistent>
    <v-card class="sheet" role="alertdialog" aria-labelledby="conflict-title">
      <h2 id="conflict-title" class="headline">Two values for the same field</h2>
      <p class="told">
        This job was saved {{ whose }}, {{ when }}. Everything else you both changed is put together. Choose what to
        keep here:
      </p>
      <div class="scroll">
        <fieldset v-for="one in asked" :key="one.field">
          <legend>{{ nameOf(one) }}</legend>
          <label><input v-model="kept[one.field]" type="radio" value="mine" /> Yours: {{ valueWords(one.mine) }}</label>
          <label
            ><input v-model="kept[one.field]" type="radio" value="theirs" /> Saved: {{ valueWords(one.theirs) }}</label
          >
        </fieldset>
      </div>
      <div class="choices">
        <v-btn color="ink" :disabled="left > 0" @click="settle">Keep these</v-btn>
        <span v-if="left" role="status">{{ left }} still to choose</span>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.told {
  margin: 12px 0;
}
.scroll {
  max-height: 50vh;
  overflow: auto;
}
fieldset {
  border: 0;
  border-bottom: 1px solid var(--line);
  padding: 8px 0;
  margin-top: 8px;
}
legend {
  font-weight: 700;
}
label {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
}
input {
  width: 20px;
  height: 20px;
  flex: none;
}
.choices {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-top: 16px;
  flex-wrap: wrap;
}
</style>
