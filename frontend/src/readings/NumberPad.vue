<script setup lang="ts">
// The pad for thumbs in gloves.
import type { Step } from '../api/types'

defineProps<{ ready: boolean; kind: Step['kind']; signs: string }>()
defineEmits<{ press: [key: string]; over: []; cannot: []; next: []; right: []; wrong: [] }>()

const DIGITS = ['7', '8', '9', '4', '5', '6', '1', '2', '3']
</script>

<template>
  <div v-if="kind === 'figure' || kind === 'either'" class="pad" role="group" aria-label="Number pad">
    <button v-for="digit in DIGITS" :key="digit" type="button" class="figure" @click="$emit('press', digit)">
      {{ digit }}
    </button>
    <button type="button" class="figure" @click="$emit('press', '.')">.</button>
    <button type="button" class="figure" @click="$emit('press', '0')">0</button>
    <button type="button" @click="$emit('cannot')">can't test</button>
    <button type="button" class="back" aria-label="Delete the last digit" @click="$emit('press', 'back')">⌫</button>
    <button v-if="kind === 'either'" type="button" class="over" @click="$emit('right')">Right</button>
    <button v-else type="button" class="over" :disabled="!ready" @click="$emit('over')">over range</button>
    <button type="button" class="next" :disabled="!ready" @click="$emit('next')">Keep</button>
  </div>
  <div v-else-if="kind === 'hold'" class="pad confirm" role="group" aria-label="Signature">
    <button type="button" class="next" @click="$emit('right')">{{ signs }}</button>
  </div>
  <div v-else class="pad confirm" role="group" aria-label="Outcome">
    <button type="button" class="next" @click="$emit('right')">Right</button>
    <button type="button" @click="$emit('wrong')">Wrong</button>
    <button type="button" @click="$emit('cannot')">can't test</button>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  grid-template-areas: '. . . back' '. . . over' '. . . next' '. . . next';
  gap: 8px;
}
.confirm {
  grid-template-columns: 1fr 1fr;
  grid-template-areas: 'first first' 'second third';
}
.confirm .next {
  grid-area: first;
}
.back {
  grid-area: back;
}
.over {
  grid-area: over;
}
.pad:not(.confirm) .next {
  grid-area: next;
}
button {
  min-height: 48px;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--sheet);
  color: var(--ink);
  font-size: 1rem;
}
.confirm button {
  min-height: 64px;
}
button.figure {
  font-size: 1.4rem;
}
button:active {
  background: var(--track);
}
button:disabled {
  color: var(--quiet);
  opacity: 0.7;
}
button.next {
  background: var(--ink);
  color: var(--paper);
  font-weight: 700;
}
button.next:disabled {
  background: var(--quiet);
}
</style>
