<script setup lang="ts">
// After the last step: what of this stage is still open, what was left out and why, what is put back, where it goes on.
import { computed } from 'vue'

import type { Move } from '../../api/types'
import type { ShownStep } from '../../readings/waiting'
import { useJob } from '../../job/useJob'
import { keyOf } from './useTestOrder'

const props = defineProps<{ stage: 'dead' | 'live'; steps: ShownStep[]; putBack?: Move[]; clamp?: string }>()
defineEmits<{ choose: [key: string] }>()

const store = useJob()
const LEFT_OUT = ['could_not_test', 'not_applicable']
const open = computed(() => props.steps.filter((step) => step.required && !step.met && !step.reading))
const left = computed(() => props.steps.filter((step) => step.reading && LEFT_OUT.includes(step.reading.outcome)))
const findings = computed(
  () => store.evaluation?.findings.filter((one) => one.stage === props.stage && one.is_open) ?? [],
)
const clamped = computed(() => props.clamp === '')
const isDone = computed(() => !open.value.length && !findings.value.length && !clamped.value)
const onward = computed(() => (props.stage === 'dead' ? 'live' : 'papers'))
</script>

<template>
  <section class="panel" aria-labelledby="stage-end">
    <h2 id="stage-end" class="headline">
      {{ isDone ? `Every ${stage} test is taken` : `Still open of the ${stage} tests` }}
    </h2>
    <ul v-if="open.length || clamped" aria-label="Not taken yet">
      <li v-for="step in open" :key="keyOf(step)">
        <button type="button" class="link" @click="$emit('choose', keyOf(step))">{{ step.title }}</button>
        <span class="quiet">, {{ step.where }}</span>
      </li>
      <li v-if="clamped">
        <button type="button" class="link" @click="$emit('choose', 'clamp')">Load limit, clamp</button>
      </li>
    </ul>
    <ul v-if="findings.length" aria-label="Not settled yet">
      <li v-for="one in findings" :key="one.key">
        <b>{{ one.title }}</b><template v-if="one.detail">: {{ one.detail }}</template>
      </li>
    </ul>
    <ul v-if="left.length" aria-label="Left out">
      <li v-for="step in left" :key="keyOf(step)">{{ step.title }}: {{ step.reading!.reason }}</li>
    </ul>
    <p v-if="stage === 'live' && putBack?.length">Put back: {{ putBack.map((one) => one.words).join('; ') }}.</p>
    <v-btn color="ink" class="onward" :to="`/jobs/${store.id}/${onward}`">Go on</v-btn>
  </section>
</template>

<style scoped src="./step-panel.css"></style>
<style scoped>
ul {
  margin: 0;
  padding-left: 20px;
  display: grid;
  gap: 6px;
}
.onward {
  justify-self: start;
  align-self: flex-start;
}
</style>
