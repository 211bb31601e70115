<script setup lang="ts">
// What nobody has seen yet, by whom to ask, what could upset most first; and the householder's link.
import { computed } from 'vue'

import type { OpenQuestion } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import LookingNote from '../../../shared/LookingNote.vue'
import { upsetWords, useUnknowns } from '../../../shared/useUnknowns'
import HouseholderLinks from './HouseholderLinks.vue'

const emit = defineEmits<{ go: [part: string] }>()

const store = useJob()
const GROUPS = [
  { ask: 'you', title: 'For you to see' },
  { ask: 'householder', title: 'To ask the householder' },
  { ask: 'operator', title: 'To ask the network operator' },
] as const
const { facts: unknowns, soFar, busy, failed, stop } = useUnknowns()
const factOf = (field: string) => unknowns.value.find((one) => one.field === field)
const place = (field: string) => {
  const at = unknowns.value.findIndex((one) => one.field === field)
  return at < 0 ? unknowns.value.length : at
}
const groups = computed(() =>
  GROUPS.map((group) => ({
    ...group,
    questions: store
      .evaluation!.questions.filter((one) => one.ask === group.ask)
      .sort((one, other) => place(one.field) - place(other.field)),
  })).filter((one) => one.questions.length),
)
const stopName = (stop: string) => store.evaluation!.stops.find((one) => one.stop === stop)?.name

/** To the stop, and to the charge point that is asked about. */
function answer(question: OpenQuestion): void {
  const [part, place] = question.field.split('.')
  if (part === 'charge_points') store.point = store.job!.charge_points[Number(place)]!.id
  emit('go', question.stop)
}
</script>

<template>
  <article class="middle">
    <h2 class="headline">Open questions</h2>
    <p v-if="failed" role="alert">What could upset most is not worked out: {{ failed }}</p>
    <LookingNote v-if="soFar" :so-far="soFar" :busy="busy" :some="unknowns.length > 0" @stop="stop" />
    <p v-if="!groups.length">Every fact of the walk is known.</p>
    <section v-for="group in groups" :key="group.ask" :aria-label="group.title">
      <h3>{{ group.title }}</h3>
      <ul>
        <li v-for="one in group.questions" :key="one.field">
          <button type="button" @click="answer(one)">
            <span
              >{{ one.text }}
              <small v-if="upsetWords(factOf(one.field))">{{ upsetWords(factOf(one.field)) }}</small></span
            ><span class="quiet">{{ stopName(one.stop) }}</span>
          </button>
        </li>
      </ul>
    </section>
    <HouseholderLinks />
  </article>
</template>

<style scoped>
article :deep(h3) {
  font-size: 1rem;
  padding-bottom: 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--line);
}
button {
  display: flex;
  justify-content: space-between;
  gap: 14px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  padding: 4px 2px;
  background: none;
  border: 0;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
}
button:hover {
  color: var(--copper);
}
small {
  display: block;
  color: var(--quiet);
  font-size: 0.86rem;
}
button .quiet {
  font-size: 0.88rem;
  white-space: nowrap;
}
</style>
