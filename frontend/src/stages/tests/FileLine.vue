<script setup lang="ts">
// One claim of a file: what it says, what becomes of it; where it could be two things it is asked, once for all alike.
import { computed, ref } from 'vue'

import type { ImportedLine, StepKey } from '../../api/types'
import { useJob } from '../../job/useJob'

const props = defineProps<{ line: ImportedLine; first: boolean }>()
const emit = defineEmits<{
  step: [word: string, step: StepKey | null]
  circuit: [word: string, circuit: string]
  top: [unit: string, top: number]
  say: [said: { mark: 'point' | 'comma' } | { day_first: boolean }]
}>()

const store = useJob()
const top = ref('')
const WORDS: Record<ImportedLine['fate'], string> = {
  taken: 'is taken',
  converted: 'is taken',
  duplicate: 'is there already',
  better: 'is not the worst',
  no_step: 'which step?',
  no_circuit: 'which circuit?',
  no_figure: 'no figure',
  which_mark: 'which mark?',
  which_day: 'which day?',
  which_top: 'over what?',
  wrong_unit: 'wrong unit',
  refused: 'can’t be taken',
  again: 'why again?',
}
const NONE = '–'
const steps = computed(() => {
  const known = new Map((store.toldSteps ?? []).map((step) => [step.step as string, step.title]))
  return [{ value: NONE, words: 'no step: leave it out' }, ...[...known].map(([value, words]) => ({ value, words }))]
})
/** What a file's word may mean: a circuit, the part of a cable before or behind a box, what is read at the origin. */
const circuits = computed(() => {
  const job = store.job!
  const boxes = job.circuits.flatMap((one) => one.boxes)
  const named = (subject: string) => {
    const [box, part] = subject.split(':') as [string, string?]
    if (part) return `${boxes.find((one) => one.id === box)?.name ?? box}, ${part} it`
    return job.circuits.find((one) => one.id === subject)?.name ?? (subject === 'origin' ? 'the origin' : '')
  }
  const subjects = [...new Set((store.toldSteps ?? []).map((step) => step.subject))]
  return subjects.map((value) => ({ value, words: named(value) })).filter((one) => one.words)
})
const sayStep = (step: string) => emit('step', props.line.asks, step === NONE ? null : (step as StepKey))
</script>

<template>
  <li :class="line.fate">
    <span class="figure">{{ line.words }}</span>
    <b>{{ WORDS[line.fate] }}</b>
    <v-select
      v-if="first && line.fate === 'no_step'"
      label="Which step is it?"
      :items="steps"
      item-title="words"
      item-value="value"
      hide-details
      @update:model-value="sayStep($event)"
    />
    <v-select
      v-else-if="first && line.fate === 'no_circuit' && line.asks"
      label="Which circuit is it?"
      :items="circuits"
      item-title="words"
      item-value="value"
      hide-details
      @update:model-value="$emit('circuit', line.asks, $event)"
    />
    <div v-else-if="first && line.fate === 'which_mark'" class="two">
      <v-btn variant="outlined" @click="$emit('say', { mark: 'comma' })">decimals</v-btn>
      <v-btn variant="outlined" @click="$emit('say', { mark: 'point' })">thousands</v-btn>
    </div>
    <div v-else-if="first && line.fate === 'which_day'" class="two">
      <v-btn variant="outlined" @click="$emit('say', { day_first: true })">day first</v-btn>
      <v-btn variant="outlined" @click="$emit('say', { day_first: false })">month first</v-btn>
    </div>
    <v-text-field
      v-else-if="first && line.fate === 'which_top'"
      v-model="top"
      :label="`Its range ends at, ${line.asks}`"
      inputmode="decimal"
      hide-details
      @change="Number(top) > 0 && $emit('top', line.asks, Number(top))"
    />
    <span v-else class="small">{{ line.told }}</span>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 2fr) 130px minmax(0, 2fr);
  gap: 10px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.two {
  display: flex;
  gap: 8px;
}
.taken b,
.converted b {
  color: var(--meets);
}
@media (max-width: 839px) {
  li {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
