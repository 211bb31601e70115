<script setup lang="ts">
// What was done so far, the newest first.
import { computed, ref } from 'vue'

import type { PracticeEntry, PracticeState } from '../api/types'
import { displayWords, keyOf } from './displayWords'

const props = defineProps<{ state: PracticeState }>()
defineEmits<{ choose: [key: string] }>()

const coverOf = (one: PracticeEntry) =>
  props.state.covers.find((each) => 'place' in one.act && each.key === one.act.place)?.name.replace('Cover of ', '') ??
  ''
const ACTS: Record<string, (entry: PracticeEntry) => string> = {
  sign: (one) =>
    'step' in one.act && one.act.step === 'isolated' ? 'Isolated, proved dead, locked off' : 'Switched on',
  switch: (one) => ('on' in one.act && one.act.on ? 'Main switch on' : 'Main switch off'),
  connect: (one) => ('connected' in one.act && one.act.connected ? 'Unit connected' : 'Unit taken off'),
  cover: (one) => ('off' in one.act && one.act.off ? 'Cover off: ' : 'Cover on: ') + coverOf(one),
  unlink: () => 'Link taken out',
  clamp: () => 'Clamp tested',
  name: () => 'Fault named',
}
const NEWEST = 5
const unfolded = ref(false)
const lines = computed(() =>
  props.state.entries
    .filter((one) => one.act.kind !== 'judge')
    .map((one) => ({
      key: one.title ? keyOf(one.act) : '',
      title: one.title || (ACTS[one.act.kind]?.(one) ?? ''),
      figure: one.title ? displayWords(one) : '',
      words: one.title ? '' : one.words,
      judged: one.judged === null ? '' : one.judged ? 'fine' : 'wrong',
    }))
    .reverse(),
)
const shown = computed(() => (unfolded.value ? lines.value : lines.value.slice(0, NEWEST)))
</script>

<template>
  <section v-if="lines.length" aria-labelledby="log-title">
    <h2 id="log-title">Done so far</h2>
    <ol>
      <li v-for="(one, place) in shown" :key="lines.length - place">
        <button v-if="one.key" type="button" class="link" @click="$emit('choose', one.key)">{{ one.title }}</button>
        <span v-else>{{ one.title }}</span>
        <span class="figure">{{ one.figure }}</span>
        <span class="quiet small">{{ one.judged }}</span>
        <p v-if="one.words" class="words small">{{ one.words }}</p>
      </li>
    </ol>
    <button v-if="lines.length > NEWEST" type="button" class="link" @click="unfolded = !unfolded">
      {{ unfolded ? 'Fold' : `All ${lines.length}` }}
    </button>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 44px;
  gap: 2px 8px;
  align-items: baseline;
  border-top: 1px solid var(--line);
  padding: 4px 0;
  font-size: 0.92rem;
}
.link {
  color: inherit;
  font-weight: 400;
}
.words {
  grid-column: 1 / -1;
}
</style>
