<script setup lang="ts">
// Readings from a file: how it lies and the fate of each line are shown first; what is left stays a file.
import { computed, ref, useTemplateRef } from 'vue'

import type { ImportedLine } from '../../api/types'
import { useJob } from '../../job/useJob'
import { usePerson } from '../../shared/usePerson'
import FileLine from './FileLine.vue'
import { useReadingFile } from './useReadingFile'

const open = defineModel<boolean>({ required: true })
const store = useJob()
const { name } = usePerson()
const input = useTemplateRef<HTMLInputElement>('input')
const instrument = ref('')
const why = ref('')
const { read, shape, failed, held, ask, bring, say, sayStep, sayCircuit, sayTop, keep } = useReadingFile(
  () => name.value.trim(),
  () => instrument.value.trim(),
  () => why.value.trim(),
)
// Once something was taken before, the field stays: what was typed into it is told with every line.
const asksWhy = computed(() => why.value !== '' || read.value?.lines.some((line) => line.fate === 'again'))
const LONG = [
  ['step_column', 'Which step'],
  ['circuit_column', 'Circuit'],
  ['value_column', 'Figure'],
  ['unit_column', 'Unit'],
] as const
const STEPS = computed(() => [
  ...new Map((store.toldSteps ?? []).map((one) => [one.step, { value: one.step, words: one.title }])).values(),
])
const WIDE = [['circuit_column', 'Circuit']] as const
const columns = computed(() => (shape.value?.wide ? WIDE : LONG))

// What is meant once is meant by every line alike: a mark or a day by all of the file.
const OF_THE_FILE = ['which_mark', 'which_day']
const asked = (one: ImportedLine) => (OF_THE_FILE.includes(one.fate) ? one.fate : `${one.fate} ${one.asks}`)
const isFirst = (line: ImportedLine, at: number) =>
  read.value!.lines.findIndex((one) => asked(one) === asked(line)) === at

async function choose(): Promise<void> {
  const file = input.value?.files?.[0]
  if (file) await bring(file)
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
      <p class="quiet">
        CSV or JSON, a row a reading or a row a circuit. Nothing is kept before you have seen what becomes of each.
      </p>
      <div class="who">
        <v-text-field v-model="name" label="Tested by" maxlength="200" />
        <v-text-field v-model="instrument" label="Instrument, where a line names none" maxlength="200" />
      </div>
      <input ref="input" type="file" accept=".csv,.txt,.json" hidden data-testid="readings-file" @change="choose" />
      <v-btn color="ink" class="choose" :disabled="name.trim().length < 2" @click="input?.click()"
        >Choose the file</v-btn
      >
      <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
      <template v-if="read && shape">
        <p v-if="read.told" class="failed" role="alert">{{ read.told }}</p>
        <div class="who">
          <v-select
            label="The file has"
            :model-value="!!shape.wide"
            :items="[
              { value: false, title: 'a row a reading' },
              { value: true, title: 'a row a circuit, a column a test' },
            ]"
            @update:model-value="say({ wide: $event })"
          />
          <v-select
            v-for="[key, label] in columns"
            :key="key"
            :label="label"
            :model-value="shape[key]"
            :items="read.columns"
            @update:model-value="say({ [key]: $event })"
          />
        </div>
        <div v-if="shape.wide && read.unused.length" class="who">
          <v-select
            v-for="column in read.unused"
            :key="column"
            :label="`“${column}” is`"
            :items="STEPS"
            item-title="words"
            item-value="value"
            @update:model-value="sayStep(column, $event)"
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
      <ol v-if="read?.lines.length" aria-label="What becomes of each line">
        <FileLine
          v-for="(line, at) in read.lines"
          :key="at"
          :line="line"
          :first="isFirst(line, at)"
          @step="sayStep"
          @circuit="sayCircuit"
          @top="sayTop"
          @say="say"
        />
      </ol>
      <div class="who">
        <v-btn v-if="read" color="ink" :disabled="!held.length" @click="keepAll">Keep {{ held.length }} readings</v-btn>
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
</style>
