<script setup lang="ts">
// What nobody has said yet of the route and its cable waits for: one press answers for every section that asks it.
// A section that is different is answered for itself, beneath it.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import UsualAnswers from './UsualAnswers.vue'

const props = defineProps<{ circuitIndex: number }>()

const store = useJob()
const ANSWERS: Record<string, { words: string; value: unknown }> = {
  grouped_circuits: { words: 'It lies alone, no other circuit beside it', value: 1 },
  insulation_mm: { words: 'It passes no insulation', value: 0 },
  concealed_under_50_mm: { words: 'Nowhere hidden less than 50 mm deep', value: false },
  metal_frame: { words: 'No metal frame or lath in the wall', value: false },
  outdoors: { words: 'Indoors, out of sun and rain', value: false },
  under_drive: { words: 'Nothing drives over it', value: false },
}
const unsaid = computed(() => {
  const found = new Map<string, string[]>()
  for (const field of store.evaluation?.unsaid ?? []) {
    const [, circuit, fact] = field.match(/^circuits\.(\d+)\.route\.\d+\.(\w+)$/) ?? []
    if (Number(circuit) === props.circuitIndex && fact && ANSWERS[fact])
      found.set(fact, [...(found.get(fact) ?? []), field])
  }
  return [...found].map(([fact, fields]) => ({ fact, fields, ...ANSWERS[fact]! }))
})
const numbers = (fields: string[]) => fields.map((one) => Number(one.split('.')[3]) + 1).join(', ')
const say = (fields: string[], value: unknown) => store.changeAll(fields.map((field) => ({ field, value })))
</script>

<template>
  <div v-if="unsaid.length" class="unsaid" role="group" aria-label="Not said yet of this route">
    <p><b>Not said yet.</b> Press what is true of every section named, or answer a section by itself under More.</p>
    <button v-for="one in unsaid" :key="one.fact" type="button" class="say" @click="say(one.fields, one.value)">
      {{ one.words }}
      <span class="quiet">{{ one.fields.length > 1 ? 'sections' : 'section' }} {{ numbers(one.fields) }}</span>
    </button>
    <UsualAnswers :answers="ANSWERS" />
  </div>
</template>

<style scoped>
.unsaid {
  border-left: 4px solid var(--needs);
  background: var(--sheet);
  padding: 8px 14px 12px;
  margin: 10px 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
p {
  flex: 1 0 100%;
  font-size: 0.92rem;
}
.say {
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--paper);
  color: var(--ink);
  min-height: 44px;
  padding: 4px 14px;
  font-weight: 700;
  text-align: left;
}
.say .quiet {
  font-weight: 400;
  font-size: 0.85rem;
}
.say:hover {
  border-color: var(--copper);
}
</style>
