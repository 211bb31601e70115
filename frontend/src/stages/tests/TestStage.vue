<script setup lang="ts">
// Dead or live tests: one step at a time, the steps beside it, whether the readings agree at the right.
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import type { Step } from '../../api/types'
import ChecksLedger from '../../checks/ChecksLedger.vue'
import { nodeOfPlace } from '../../job/useAlongTheRun'
import { useJob } from '../../job/useJob'
import { useSought } from '../../shared/fieldPlaces'
import ClampTest from './ClampTest.vue'
import LooksLike from './LooksLike.vue'
import StageEnd from './StageEnd.vue'
import StepList from './StepList.vue'
import StepPanel from './StepPanel.vue'
import ReadingFile from './ReadingFile.vue'
import TestingSetup from './TestingSetup.vue'
import { useAskingBeside } from './useBeside'
import { useClamp } from './useClamp'
import { keyOf, useTestOrder } from './useTestOrder'

const props = defineProps<{ stage: 'dead' | 'live' }>()
const emit = defineEmits<{ at: [node: string] }>()

const store = useJob()
const { steps, movesOf, plan, byCoach, settled } = useTestOrder(() => props.stage)
const current = ref('')
const chosen = ref(false)
const settingUp = ref(false)
const bringingIn = ref(false)
useSought((path) => path.startsWith('testing.') && (settingUp.value = true))
const all = computed(() => store.steps)
// A step that is only offered with another is opened by choice, and stands in its place then.
const step = computed(() => all.value.find((one) => keyOf(one) === current.value && one.stage === props.stage))
useAskingBeside(() => step.value)
const place = computed(() => steps.value.findIndex((one) => keyOf(one) === current.value))
const { clamp } = useClamp()
const limited = computed(() => store.job?.supply.load_limit_a !== null && props.stage === 'live')
const clampWords = computed(() => (clamp.value && !clamp.value.is_open ? 'proven' : ''))

const isOpen = (one: Step) => !one.met && one.reading === null
function firstOpen(): string {
  const found = steps.value.find((one) => isOpen(one) && one.required) ?? steps.value[0]
  return found ? keyOf(found) : ''
}
watch(
  [() => props.stage, () => store.id, () => store.toldSteps === undefined],
  () => {
    chosen.value = false
    current.value = firstOpen()
  },
  { immediate: true },
)
// The coach's order arrives a moment later: who has not begun begins where it does.
watch(plan, (now, before) => {
  if (now && !before && !chosen.value) current.value = firstOpen()
})
function choose(key: string): void {
  chosen.value = true
  current.value = key
}
watch(
  () => (step.value ? nodeOfPlace(step.value.place) : current.value === 'clamp' ? 'charge_point' : ''),
  (node) => emit('at', node),
  { immediate: true },
)
// Whoever was sent to a test finds it open.
const route = useRoute()
watch(
  [() => route.query.step, () => store.toldSteps === undefined],
  ([sought]) => typeof sought === 'string' && sought && choose(sought),
  { immediate: true },
)

function next(): void {
  const from = place.value
  const after = steps.value.find((one, index) => index > from && isOpen(one)) ?? steps.value[from + 1]
  current.value = after ? keyOf(after) : 'end'
}
</script>

<template>
  <div v-if="steps.length" class="workbench">
    <StepList
      v-model:by-coach="byCoach"
      :steps="steps"
      :current="current"
      :stage="stage"
      :sums="plan"
      :put-back="plan?.put_back"
      :clamp="limited ? clampWords : undefined"
      @choose="choose"
    />
    <ClampTest v-if="current === 'clamp'" />
    <StageEnd
      v-else-if="current === 'end'"
      :stage="stage"
      :steps="steps"
      :put-back="plan?.put_back"
      :clamp="limited ? clampWords : undefined"
      @choose="choose"
    />
    <StepPanel
      v-else-if="step && settled"
      :key="current"
      :step="step"
      :number="Math.max(place, 0) + 1"
      :count="steps.length"
      :moves="movesOf(step)"
      :offered="all.filter((one) => one.offered_with === step!.step && one.subject === step!.subject)"
      @kept="next"
      @choose="choose(keyOf($event))"
      @set-up="settingUp = true"
      @file="bringingIn = true"
    />
    <p v-else-if="step" class="none">Looking at the tests…</p>
    <aside>
      <LooksLike :stage="stage" @choose="choose" />
      <ChecksLedger
        :stages="[stage]"
        title="Do the readings agree?"
        :filter="(one) => one.topics.includes('agreement')"
      />
      <ChecksLedger :stages="[stage]" title="Against their limits" :filter="(one) => one.topics.includes('reading')" />
    </aside>
    <TestingSetup v-model="settingUp" />
    <ReadingFile v-model="bringingIn" />
  </div>
  <p v-else-if="!store.toldSteps" class="none">Looking at the tests…</p>
  <p v-else class="none">Nothing to test yet: no circuit feeds a charge point.</p>
</template>

<style scoped>
.none {
  min-height: 100vh;
  padding: 30px 24px;
}
</style>
