<script setup lang="ts">
// What the display showed, big; then the learner's own view of it.
import { computed } from 'vue'

import type { PracticeEntry, Step } from '../api/types'
import TapGroup from '../shared/fields/TapGroup.vue'
import { figureOf } from './displayWords'

const props = defineProps<{ entry: PracticeEntry; step: Step; ended: boolean }>()
defineEmits<{ judge: [right: boolean] }>()

const ANSWERS = [
  { value: true, words: 'As it should be' },
  { value: false, words: 'Something is wrong' },
]
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
    <TapGroup
      v-if="!ended && !nothing"
      label="Is it as it should be?"
      :answers="ANSWERS"
      :chosen="(right) => right === entry.judged"
      @tap="$emit('judge', $event)"
    />
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
</style>
