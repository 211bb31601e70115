<script setup lang="ts">
// The design read and edited as one sentence, the route as walked, and the checks.
import { computed, ref } from 'vue'

import ChecksLedger from '../../checks/ChecksLedger.vue'
import { useJob } from '../../job/useJob'
import StageColumns from '../../shared/StageColumns.vue'
import ArrangementFields from './ArrangementFields.vue'
import RouteEditor from './RouteEditor.vue'
import SpecificationSentence from './SpecificationSentence.vue'

const store = useJob()
const sentence = computed(() => store.evaluation?.sentences[0])
const circuitIndex = computed(() => store.job?.circuits.findIndex((one) => one.id === sentence.value?.circuit) ?? -1)
const routeEditor = ref<InstanceType<typeof RouteEditor>>()
const surveyOpen = computed(() => store.evaluation?.gaps.filter((gap) => gap.kind === 'check' && gap.stage === 'survey').length ?? 0)
</script>

<template>
  <StageColumns>
    <p v-if="surveyOpen" class="open">
      {{ surveyOpen }} {{ surveyOpen === 1 ? 'question is' : 'questions are' }} still open in the
      <router-link :to="{ name: 'survey' }" class="link">survey</router-link>.
    </p>
    <template v-if="sentence && circuitIndex >= 0">
      <h2>How this circuit is put together</h2>
      <SpecificationSentence :sentence="sentence" @route="routeEditor?.focus()" />
      <RouteEditor ref="routeEditor" :circuit-index="circuitIndex" />
      <ArrangementFields :circuit-index="circuitIndex" />
    </template>
    <p v-else class="quiet">No circuit feeds a charge point in this job. Bring in a job file that has one, or start from a blank sheet.</p>
    <template #aside>
      <ChecksLedger :stages="['design', 'live']" :filter="(one) => one.stage === 'design' || one.rule === 'survives_fault'" />
    </template>
  </StageColumns>
</template>

<style scoped>
.open {
  border-left: 4px solid var(--needs);
  padding: 4px 12px;
  margin-bottom: 18px;
  background: var(--sheet);
}
</style>
