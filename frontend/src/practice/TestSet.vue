<script setup lang="ts">
// The set in the learner's hands: dial, leads, link and adapter as plain choices. It looks like no instrument.
import { computed } from 'vue'

import type { PracticeState, Step } from '../api/types'
import TapGroup from '../shared/fields/TapGroup.vue'
import type { useSetUp } from './useSetUp'

const props = defineProps<{ state: PracticeState; step: Step; set: ReturnType<typeof useSetUp>; busy: boolean }>()
defineEmits<{ take: [] }>()

const LINKS = [
  { value: 'none' as const, words: 'Nothing' },
  { value: 'line_earth' as const, words: 'Line to earth' },
  { value: 'line_neutral' as const, words: 'Line to neutral' },
]
const { dial, linked, adapter, leads, active } = props.set
const dials = computed(() => props.state.dials.map((one) => ({ value: one.key, title: one.words })))
const adapters = computed(() => [
  { value: '', title: 'no adapter' },
  ...props.state.adapters.map((one) => ({ value: one, title: one })),
])
const words = (points: string[]) => {
  const all = Object.values(props.state.scene.terminals).flat()
  return points.map((point) => all.find((one) => one.point === point)?.words ?? point).join(' and ')
}
const byLeads = computed(() => props.step.leads.length > 0)
const together = computed(() => props.state.dials.find((one) => one.key === dial.value)?.function === 'insulation')
const ready = computed(() => !props.busy && (!byLeads.value || dial.value !== ''))
</script>

<template>
  <div class="set">
    <div v-if="byLeads" class="jacks" role="radiogroup" aria-label="Lead to place next">
      <button
        v-for="(points, jack) in leads"
        :key="jack"
        type="button"
        role="radio"
        class="jack"
        :aria-checked="active === jack"
        :class="{ active: active === jack }"
        @click="active = String(jack)"
      >
        <b class="figure">{{ jack }}</b> {{ words(points) || 'tap a terminal' }}
      </button>
    </div>
    <p v-if="together" class="small quiet">A lead may hold two terminals together: tap both.</p>
    <div class="choices">
      <v-select v-if="byLeads" v-model="dial" :items="dials" label="Dial" />
      <v-select v-if="step.stage === 'live'" v-model="adapter" :items="adapters" label="Adapter position" />
    </div>
    <TapGroup
      v-if="step.stage === 'dead' && byLeads"
      label="Linked at the near end"
      :answers="LINKS"
      :chosen="(one) => one === linked"
      @tap="linked = $event"
    />
    <v-btn color="ink" class="take" :disabled="!ready" @click="$emit('take')">{{ byLeads ? 'Read' : 'Look' }}</v-btn>
  </div>
</template>

<style scoped>
.set {
  display: grid;
  gap: 12px;
}
.jacks {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.jack {
  min-height: 44px;
  padding: 6px 14px;
  border: 1.5px solid var(--line);
  border-radius: 8px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.jack.active {
  border: 2.5px solid var(--copper);
  padding: 5px 13px;
}
.choices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 10px;
}
.take {
  justify-self: start;
  min-width: 140px;
}
</style>
