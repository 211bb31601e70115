<script setup lang="ts">
// Readings from a file: the fate of each line is shown first; what is left stays a file.
import { computed, ref, useTemplateRef } from 'vue'

import { useJob } from '../../job/useJob'
import { usePerson } from '../../shared/usePerson'
import { useReadingFile } from './useReadingFile'

const open = defineModel<boolean>({ required: true })
const store = useJob()
const { name } = usePerson()
const input = useTemplateRef<HTMLInputElement>('input')
const instrument = ref('')
const why = ref('')
const { read, failed, told, ask, bring, mapStep, mapColumn, keep } = useReadingFile(
  () => name.value.trim(),
  () => instrument.value.trim(),
  () => why.value.trim(),
)
// Once something was taken before, the field stays: what was typed into it is told with every line.
const asksWhy = computed(() => why.value !== '' || read.value?.lines.some((line) => line.fate === 'again'))
const taken = computed(() => read.value?.lines.filter((line) => line.reading) ?? [])
const STEPS = computed(() => (store.toldSteps ?? []).map((step) => ({ value: step.step, words: step.title })))
const COLUMNS = [
  ['step_column', 'Which step'],
  ['circuit_column', 'Circuit'],
  ['value_column', 'Figure'],
  ['unit_column', 'Unit'],
] as const
const WORDS: Record<string, string> = {
  taken: 'is taken',
  converted: 'is taken',
  duplicate: 'is there already',
  no_step: 'which step?',
  no_circuit: 'no such circuit',
  no_figure: 'no figure',
  wrong_unit: 'wrong unit',
  refused: 'can’t be taken',
  again: 'why again?',
}

async function choose(): Promise<void> {
  const file = input.value?.files?.[0]
  if (file) await bring(await file.text())
  input.value!.value = ''
}
async function keepAll(): Promise<void> {
  if (await keep()) open.value = false
}
</script>

<template>
  <v-dialog v-model="open" max-width="860" scrollable>
    <v-card class="sheet file">
      <h2 class="headline">Readings from a file</h2>
      <p class="quiet">CSV or JSON. Nothing is kept before you have seen what becomes of each line.</p>
      <div class="who">
        <v-text-field v-model="name" label="Tested by" maxlength="200" />
        <v-text-field v-model="instrument" label="Instrument, where a line names none" maxlength="200" />
      </div>
      <input ref="input" type="file" accept=".csv,.txt,.json" hidden data-testid="readings-file" @change="choose" />
      <v-btn color="ink" class="choose" :disabled="name.trim().length < 2" @click="input?.click()"
        >Choose the file</v-btn
      >
      <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
      <template v-if="told">
        <div class="who">
          <v-select
            v-for="[key, label] in COLUMNS"
            :key="key"
            :label="label"
            :model-value="told.shape[key]"
            :items="told.columns"
            @update:model-value="mapColumn(key, $event)"
          />
        </div>
      </template>
      <v-text-field
        v-if="asksWhy"
        v-model="why"
        label="Some steps were taken before. Taken again because"
        maxlength="200"
        @change="ask"
      />
      <ol v-if="read" aria-label="What becomes of each line">
        <li v-for="line in read.lines" :key="line.number" :class="line.fate">
          <span class="figure">{{ line.words }}</span>
          <b>{{ WORDS[line.fate] }}</b>
          <v-select
            v-if="line.fate === 'no_step'"
            label="Which step is it?"
            :items="STEPS"
            item-title="words"
            item-value="value"
            hide-details
            @update:model-value="mapStep(line.words, $event)"
          />
          <span v-else class="small">{{ line.told }}</span>
        </li>
      </ol>
      <div class="who">
        <v-btn v-if="read" color="ink" :disabled="!taken.length" @click="keepAll"
          >Keep {{ taken.length }} readings</v-btn
        >
        <v-btn variant="text" @click="open = false">Back</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.file {
  display: grid;
  gap: 12px;
  overflow-y: auto;
}
.who {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 10px;
}
.choose {
  justify-self: start;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 2fr) 130px minmax(0, 2fr);
  gap: 10px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line);
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
