<script setup lang="ts">
// The steps in their order, each with what was read; a line stands where you walk to another place.
import { computed } from 'vue'

import type { Effort, Move } from '../../api/types'
import { readingWords } from '../../readings/readingWords'
import type { ShownStep } from '../../readings/waiting'
import { useJob } from '../../job/useJob'
import SideList from '../../shared/SideList.vue'
import { useBeside } from './useBeside'
import { keyOf } from './useTestOrder'

const props = defineProps<{
  steps: ShownStep[]
  current: string
  stage: 'dead' | 'live'
  sums?: { coached: Effort; book: Effort }
  putBack?: Move[]
  clamp?: string
}>()
const emit = defineEmits<{ choose: [key: string] }>()
const byCoach = defineModel<boolean>('byCoach', { required: true })

const store = useJob()
const pointId = computed(() => store.job!.charge_points[store.pointIndex]?.id)
const { others } = useBeside()
const whoIsAt = (key: string) => others.value.filter((one) => keyOf(one) === key).map((one) => `${one.name} here`)
const severalCircuits = computed(() => new Set(props.steps.map((step) => step.circuit)).size > 2)
const isOpen = (step: ShownStep) => !step.met && !step.reading
const groupOf = (step: ShownStep) => `${step.where} ${severalCircuits.value ? step.circuit : ''}`
/** Where a step begins a group: where that is, of which circuit, and how many of it are open. */
function headAt(place: number): string | undefined {
  const step = props.steps[place]!
  if (place > 0 && groupOf(props.steps[place - 1]!) === groupOf(step)) return undefined
  let open = 0
  for (let at = place; at < props.steps.length && groupOf(props.steps[at]!) === groupOf(step); at += 1)
    open += Number(isOpen(props.steps[at]!))
  const circuit = severalCircuits.value ? store.job!.circuits.find((one) => one.id === step.circuit)?.name : ''
  const words = [step.where.charAt(0).toUpperCase() + step.where.slice(1), circuit, open ? `${open} open` : 'done']
  return words.filter(Boolean).join(', ')
}
const items = computed(() => [
  ...props.steps.map((step, place) => ({
    key: keyOf(step),
    title: step.title,
    figure: [readingWords(step) + (step.waits ? ' on this device' : ''), ...whoIsAt(keyOf(step))]
      .filter(Boolean)
      .join(', '),
    open: isOpen(step),
    head: headAt(place),
  })),
  ...(props.clamp === undefined
    ? []
    : [
        {
          key: 'clamp',
          title: 'Load limit, clamp',
          figure: props.clamp,
          open: props.clamp === '',
          head: 'At the clamp',
        },
      ]),
])
/** The step of this stage that somebody else has open, and this one has not. */
const theirs = computed(() => {
  const open = others.value.map((one) => keyOf(one))
  return props.steps.map(keyOf).find((key) => open.includes(key) && key !== props.current)
})
const taken = computed(() => props.steps.filter((step) => step.met || step.reading).length)
const minutes = (sum: Effort) => (sum.duration_s / 60).toFixed(0)
</script>

<template>
  <SideList
    class="steps"
    :items="items"
    :current="current"
    :fold="`All steps, ${taken} of ${steps.length} taken`"
    label="Steps"
    @choose="emit('choose', $event)"
  >
    <button type="button" class="link ends" @click="emit('choose', 'end')">What is still open</button>
    <p v-if="others.length" class="sums" role="note">
      With you: {{ [...new Set(others.map((one) => one.name))].join(', ') }}.
      <button v-if="theirs" type="button" class="link" @click="emit('choose', theirs)">Go to their step</button>
    </p>
    <p v-if="stage === 'live'" class="care" role="note">
      Live work. Fused probes, covers back on before you walk away.
    </p>
    <p v-else class="care" role="note">Isolated, proved dead, locked off? Prove the tester before and after.</p>
    <p v-if="stage === 'live' && putBack?.length" class="sums">
      After the last one: {{ putBack.map((one) => one.words).join('; ') }}.
    </p>
    <div v-if="sums" class="sums">
      <p>
        <b class="figure">{{ sums.coached.moves }}</b> moves, {{ minutes(sums.coached) }} min;
        <span class="quiet"
          >circuit by circuit <b class="figure">{{ sums.book.moves }}</b>, {{ minutes(sums.book) }} min</span
        >
      </p>
      <button type="button" class="link" @click="byCoach = !byCoach">
        {{ byCoach ? 'Go circuit by circuit' : 'Go by the fewest moves' }}
      </button>
    </div>
    <router-link :to="{ name: 'practice', query: { job: store.id, point: pointId } }" class="link practise"
      >Practise on this house</router-link
    >
  </SideList>
</template>

<style scoped>
.care {
  margin: 16px 18px 4px;
  padding: 10px 14px;
  border-left: 4px solid var(--falls_short);
  background: color-mix(in srgb, var(--falls_short) 12%, var(--sheet));
  font-size: 0.88rem;
}
.ends {
  display: block;
  margin: 4px 18px;
}
.practise {
  display: block;
  margin: 8px 18px 0;
  text-decoration: none;
  font-size: 0.92rem;
}
.sums {
  margin: 12px 18px 4px;
  font-size: 0.88rem;
}
</style>
