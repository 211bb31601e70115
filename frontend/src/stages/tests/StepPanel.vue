<script setup lang="ts">
// One step: how to connect, what to expect, the figure, and at once what the core says of it.
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { useDisplay } from 'vuetify'

import { asProblem } from '../../api/client'
import type { Reading, Step } from '../../api/types'
import { useJob } from '../../job/useJob'
import LeadDrawing from '../../readings/LeadDrawing.vue'
import NumberPad from '../../readings/NumberPad.vue'
import ReadingScale from '../../readings/ReadingScale.vue'
import { useReadingEntry } from '../../readings/useReadingEntry'
import { useReadingVerdict } from '../../readings/useReadingVerdict'
import { bandWords, limitWords, readingWords } from '../../readings/readingWords'
import { usePerson } from '../../shared/usePerson'
import VerdictMark from '../../shared/VerdictMark.vue'
import CannotTest from './CannotTest.vue'
import TesterFields from './TesterFields.vue'

const props = defineProps<{ step: Step; number: number; count: number }>()
const emit = defineEmits<{ kept: [] }>()

const store = useJob()
const { smAndDown } = useDisplay()
const person = usePerson()
const by = () => ({ name: person.name.value, instrument: person.instrument.value })
const entry = useReadingEntry(() => props.step)
const field = useTemplateRef<HTMLInputElement>('field')
const cannot = ref(false)
const failed = ref('')
const named = computed(() => person.name.value.trim().length >= 2)
const ready = computed(() => named.value && entry.value.value !== null)
const verdict = useReadingVerdict(
  () => props.step,
  () =>
    entry.value.value === null ? null : entry.reading('measured', { ...by(), name: person.name.value || 'not named' }),
)

onMounted(() => smAndDown.value || field.value?.focus())

async function keep(reading: Reading): Promise<void> {
  failed.value = ''
  try {
    await store.takeReading(reading)
    emit('kept')
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
function take(outcome: Reading['outcome'], reason = ''): void {
  if (named.value) void keep(entry.reading(outcome, by(), reason))
  else failed.value = 'Enter your name below first: every reading is kept with who took it.'
}
function keys(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === 'Enter' && ready.value) take('measured')
  else if (event.key === '>' && ready.value) take('over_range')
  else if (event.key.toLowerCase() === 'l') cannot.value = true
  else return
  event.preventDefault()
}
</script>

<template>
  <section class="panel" :aria-labelledby="`step-${step.step}`">
    <p class="count">Step {{ number }} of {{ count }}, {{ step.where }}</p>
    <h2 :id="`step-${step.step}`" class="headline">{{ step.title }}</h2>
    <p class="how quiet">{{ step.how }}</p>
    <LeadDrawing :step="step" />
    <div v-if="step.kind === 'figure'" class="entry">
      <div class="big figure">
        <input
          ref="field"
          v-model="entry.typed.value"
          :aria-label="`${step.title} in ${step.unit}`"
          :inputmode="smAndDown ? 'none' : 'decimal'"
          autocomplete="off"
          maxlength="8"
          @keydown="keys"
        />
        <span>{{ step.unit }}</span>
      </div>
      <p class="expect">
        <template v-if="bandWords(step)"
          >Expect <b class="figure">{{ bandWords(step) }}</b><span class="from">: {{ step.expected_from }}</span
          >.<br
        /></template>
        <template v-if="limitWords(step)"
          >Limit <b class="figure">{{ limitWords(step) }}</b><span v-if="step.limit_from" class="from"
            >, {{ step.limit_from }}</span
          >.</template
        >
      </p>
    </div>
    <ReadingScale v-if="step.kind === 'figure'" :step="step" :value="entry.value.value" />
    <p v-for="finding in verdict" :key="finding.rule" class="judged" aria-live="polite">
      <VerdictMark :verdict="finding.verdict" /> {{ finding.title }}.&#32;<span
        :class="{ from: finding.verdict === 'meets' }"
        >{{ finding.detail }}</span
      >
    </p>
    <p v-if="step.reading && entry.value.value === null" class="taken">
      Kept: <b class="figure">{{ readingWords(step) }}</b> by {{ step.reading.taken_by }}. Taking it again keeps both;
      the newer one counts.
    </p>
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
    <NumberPad
      v-if="smAndDown"
      class="pad"
      :ready="ready"
      :kind="step.kind"
      @press="entry.press"
      @next="take('measured')"
      @over="take('over_range')"
      @right="take('right')"
      @wrong="take('wrong')"
      @cannot="cannot = true"
    />
    <div v-else class="keys">
      <template v-if="step.kind === 'figure'">
        <v-btn color="ink" :disabled="!ready" @click="take('measured')">Keep and go on</v-btn><kbd>Enter</kbd>
        <v-btn variant="text" :disabled="!ready" @click="take('over_range')">Over range</v-btn><kbd>&gt;</kbd>
      </template>
      <template v-else>
        <v-btn color="ink" @click="take('right')">Right</v-btn>
        <v-btn variant="outlined" @click="take('wrong')">Wrong</v-btn>
      </template>
      <v-btn variant="text" @click="cannot = true">Could not test</v-btn><kbd v-if="step.kind === 'figure'">L</kbd>
    </div>
    <TesterFields />
    <CannotTest v-model="cannot" @because="take('could_not_test', $event)" />
  </section>
</template>

<style scoped src="./step-panel.css" />
