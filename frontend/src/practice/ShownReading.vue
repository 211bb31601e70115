<script setup lang="ts">
// What the display showed, big; then the learner's own view of it.
import { computed } from 'vue'

import type { PracticeEntry, Step } from '../api/types'
import { figureOf } from './displayWords'

const props = defineProps<{ entry: PracticeEntry; step: Step; ended: boolean }>()
defineEmits<{ judge: [right: boolean] }>()

const figure = computed(() => figureOf(props.entry))
const nothing = computed(() => props.entry.outcome === 'could_not_test')
</script>

<template>
  <div class="shown" aria-live="polite">
    <p v-if="figure" class="big figure">
      {{ figure }} <span>{{ entry.unit }}</span>
    </p>
    <p v-if="entry.words" class="words">{{ entry.words }}</p>
    <p v-if="ended && entry.rightly === false" class="quiet">The set did not stand as the step asks.</p>
    <div v-if="!ended && !nothing" class="keys" role="radiogroup" aria-label="Is it as it should be?">
      <button
        type="button"
        role="radio"
        class="key"
        :aria-checked="entry.judged === true"
        @click="$emit('judge', true)"
      >
        As it should be
      </button>
      <button
        type="button"
        role="radio"
        class="key"
        :aria-checked="entry.judged === false"
        @click="$emit('judge', false)"
      >
        Something is wrong
      </button>
    </div>
  </div>
</template>

<style scoped>
.shown {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
.big {
  font-size: 2.6rem;
  line-height: 1.1;
}
.big span {
  font-size: 1.4rem;
}
.words {
  font-size: 1.05rem;
}
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.key {
  min-height: 44px;
  padding: 6px 16px;
  border: 1.5px solid var(--line);
  border-radius: 8px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}
.key[aria-checked='true'] {
  border: 2.5px solid var(--copper);
  padding: 5px 15px;
  font-weight: 700;
}
.key[aria-checked='true']::before {
  content: '✓ ';
}
</style>
