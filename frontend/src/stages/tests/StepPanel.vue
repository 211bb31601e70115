<script setup lang="ts">
// One step: what to change, how to connect, what to expect, the figure, and at once what the core says of it.
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useDisplay } from 'vuetify'

import { asProblem } from '../../api/client'
import type { Move, Reading, Step } from '../../api/types'
import { useJob } from '../../job/useJob'
import LeadDrawing from '../../readings/LeadDrawing.vue'
import LeadList from '../../readings/LeadList.vue'
import NumberPad from '../../readings/NumberPad.vue'
import ReadingScale from '../../readings/ReadingScale.vue'
import { useReadingEntry } from '../../readings/useReadingEntry'
import { useReadingVerdict } from '../../readings/useReadingVerdict'
import { useCatalogue } from '../../shared/useCatalogue'
import { usePerson } from '../../shared/usePerson'
import CannotTest from './CannotTest.vue'
import FigureField from './FigureField.vue'
import MovesStrip from './MovesStrip.vue'
import OutcomeKeys from './OutcomeKeys.vue'
import StaysConnected from './StaysConnected.vue'
import StepHow from './StepHow.vue'
import StepTaken from './StepTaken.vue'
import StepVerdict from './StepVerdict.vue'
import TesterFields from './TesterFields.vue'
import { useBeside } from './useBeside'
import { useInstrument } from './useInstrument'
import { keyOf } from './useTestOrder'
import { useTestSet } from './useTestSet'

const props = defineProps<{ step: Step; number: number; count: number; moves: Move[]; offered: Step[] }>()
const emit = defineEmits<{ kept: []; choose: [step: Step]; setUp: []; file: [] }>()

const store = useJob()
const { smAndDown } = useDisplay()
const person = usePerson()
const { stepText } = useCatalogue()
const text = computed(() => stepText(props.step))
const { instrument } = useInstrument(() => props.step)
// What the set showed was taken by the set, whichever instrument is chosen below.
const showedBy = ref('')
const { others, readBy } = useBeside()
const beside = computed(() => others.value.filter((one) => keyOf(one) === keyOf(props.step)).map((one) => one.name))
// Nobody signs for another.
const by = () => ({
  name: person.name.value,
  instrument: showedBy.value || instrument.value,
  readBy: props.step.kind === 'hold' ? '' : readBy.value,
})
const entry = useReadingEntry(() => props.step)
const { hasSet, readFromSet } = useTestSet()
const field = useTemplateRef<InstanceType<typeof FigureField>>('field')
const root = useTemplateRef<HTMLElement>('root')
const outcomes = useTemplateRef<InstanceType<typeof OutcomeKeys>>('outcomes')
const cannot = ref(false)
const leftOut = ref<'could_not_test' | 'not_applicable'>('could_not_test')
const failed = ref('')
const moved = computed(() => props.moves.flatMap((move) => (move.kind === 'lead' ? [move.jack] : [])))
const figure = computed(() => props.step.kind === 'figure' || props.step.kind === 'either')
const ready = computed(() => entry.written.value !== null)
const signs = computed(() => `Sign as ${person.name.value.trim() || '…'}`)
const verdict = useReadingVerdict(
  () => props.step,
  () =>
    entry.value.value === null
      ? null
      : entry.reading(entry.written.value!.outcome, { ...by(), name: person.name.value || 'not named' }),
)
const told = useTemplateRef<HTMLElement>('told')
watch(failed, () => void nextTick(() => told.value?.scrollIntoView({ block: 'nearest' })))
// What was lacking is not said any longer once something was mended.
watch([person.name, instrument, entry.typed, entry.again, entry.testVoltageV], () => (failed.value = ''))
// A step begins where all of it is seen down to what keeps it: on a phone that is from its head on.
onMounted(async () => {
  if (!smAndDown.value) field.value?.focus()
  // Once the list that it was chosen from has folded: what moves after that would move under a thumb.
  await nextTick()
  const keys: HTMLElement | undefined = outcomes.value?.$el
  const isBelow = keys !== undefined && keys.getBoundingClientRect().bottom > innerHeight
  if (smAndDown.value || isBelow) root.value?.scrollIntoView({ block: 'start' })
})

async function keep(reading: Reading, goesOn = true): Promise<void> {
  failed.value = ''
  try {
    await store.takeReading(reading)
    entry.again.value = ''
    if (goesOn) emit('kept')
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
function lacking(outcome: Reading['outcome']): string {
  if (person.name.value.trim().length < 2) return 'Enter your name below first: every reading is kept with who took it.'
  const measured = outcome === 'measured' || outcome === 'over_range'
  if (measured && !by().instrument) return 'Say below with which instrument: every figure is kept with it.'
  return entry.lacking.value
}
function take(outcome: Reading['outcome'], reason = ''): void {
  failed.value = lacking(outcome)
  if (!failed.value) void keep(entry.reading(outcome, by(), reason))
}
/** What was read by mistake is taken back by another entry; both stay. */
function takeBack(): void {
  failed.value = lackingBack()
  if (!failed.value) void keep(entry.back(person.name.value), false)
}
function lackingBack(): string {
  if (person.name.value.trim().length < 2) return 'Enter your name below first: it is kept with who takes it back.'
  return entry.again.value.trim().length < 3
    ? 'Say why it is taken back: it stays in the record, with your reason.'
    : ''
}
async function fromSet(): Promise<void> {
  failed.value = ''
  try {
    const shown = await readFromSet(props.step)
    showedBy.value = shown.instrument
    if (shown.outcome === 'right' || shown.outcome === 'wrong') return take(shown.outcome, shown.told)
    entry.fill(shown)
    field.value?.focus()
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
function takeWritten(): void {
  const written = entry.written.value
  if (!written) return
  if (written.value === null) leave(written.outcome as typeof leftOut.value)
  else take(written.outcome)
}
function leave(kind: typeof leftOut.value): void {
  leftOut.value = kind
  cannot.value = true
}
</script>

<template>
  <section ref="root" class="panel" :aria-labelledby="`step-${step.step}`">
    <p class="count">
      Step {{ number }} of {{ count }}, {{ step.where
      }}<template v-if="beside.length">; {{ beside.join(', ') }} has it open too</template>
    </p>
    <h2 :id="`step-${step.step}`" class="headline">{{ step.title }}</h2>
    <MovesStrip :moves="moves" />
    <p v-if="step.beforehand" class="damages" role="note"><b>First:</b> {{ step.beforehand }}</p>
    <StaysConnected :step="step" asking />
    <p v-if="text?.damages" class="damages" role="note"><b>Can be hurt:</b> {{ text.damages }}</p>
    <p v-if="!smAndDown" class="how">{{ text?.how }}</p>
    <component :is="smAndDown ? LeadList : LeadDrawing" :step="step" :moved="moved" />
    <FigureField
      v-if="figure"
      ref="field"
      :entry="entry"
      :step="step"
      @keep="takeWritten"
      @leave="leave"
      @from-set="fromSet"
    />
    <ReadingScale v-if="figure && step.limit_low === null" :step="step" :value="entry.value.value" />
    <StepVerdict :findings="verdict" />
    <StepTaken v-model="entry.again.value" :step="step" :typing="entry.value.value !== null" @back="takeBack" />
    <p v-if="failed" ref="told" class="failed" role="alert">{{ failed }}</p>
    <NumberPad
      v-if="smAndDown"
      class="thumb-pad"
      :ready="ready"
      :kind="step.kind"
      :signs="signs"
      @press="entry.press"
      @next="takeWritten"
      @over="take('over_range')"
      @right="take('right')"
      @wrong="take('wrong')"
      @cannot="leave('could_not_test')"
    />
    <OutcomeKeys
      v-else
      ref="outcomes"
      :kind="step.kind"
      :ready="ready"
      :signs="signs"
      :set="hasSet"
      @from-set="fromSet"
      @keep="takeWritten"
      @over="take('over_range')"
      @right="take('right')"
      @wrong="take('wrong')"
      @cannot="leave('could_not_test')"
    />
    <v-btn v-if="smAndDown && hasSet && step.kind !== 'hold'" variant="outlined" @click="fromSet"
      >From the test set</v-btn
    >
    <StepHow :step="step" :offered="offered" @choose="emit('choose', $event)" />
    <TesterFields v-model:photo="entry.photo.value" :step="step" @set-up="emit('setUp')" @file="emit('file')" />
    <CannotTest v-model="cannot" :kind="leftOut" :waivable="step.waivable || !step.required" @because="take" />
  </section>
</template>

<style scoped src="./step-panel.css" />
