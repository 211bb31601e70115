<script setup lang="ts">
// The steps in their order, each with what was read.
import { computed } from 'vue'

import type { Step } from '../../api/types'
import { readingWords } from '../../readings/readingWords'
import SideList from '../../shared/SideList.vue'

const props = defineProps<{ steps: Step[]; current: number; stage: 'dead' | 'live' }>()
const emit = defineEmits<{ choose: [index: number] }>()

const key = (step?: Step) => (step ? `${step.step}/${step.subject}` : '')
const items = computed(() =>
  props.steps.map((step) => ({ key: key(step), title: step.title, figure: readingWords(step), open: !step.reading })),
)
const fold = computed(
  () => `All steps, ${props.steps.filter((step) => step.reading).length} of ${props.steps.length} taken`,
)
</script>

<template>
  <SideList
    class="steps"
    :items="items"
    :current="key(steps[current])"
    :fold="fold"
    label="Steps"
    @choose="
      (chosen) =>
        emit(
          'choose',
          steps.findIndex((step) => key(step) === chosen),
        )
    "
  >
    <p v-if="stage === 'live'" class="care" role="note">
      Live work. Fused probes, covers back on before you walk away.
    </p>
    <p v-else class="care" role="note">Isolated, proved dead, locked off? Prove the tester before and after.</p>
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
</style>
