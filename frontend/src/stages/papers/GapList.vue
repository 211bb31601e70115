<script setup lang="ts">
// What still stands before the certificate, grouped by the stage that puts it right.
import { computed } from 'vue'

import type { Gap } from '../../api/types'

const props = defineProps<{ gaps: Gap[] }>()

const STAGES = {
  survey: 'Survey',
  design: 'Design',
  dead: 'Dead tests',
  live: 'Live tests',
  papers: 'Papers, on this page',
} as const
const groups = computed(() =>
  (Object.keys(STAGES) as Gap['stage'][])
    .map((stage) => ({ stage, words: STAGES[stage], gaps: props.gaps.filter((gap) => gap.stage === stage) }))
    .filter((group) => group.gaps.length),
)
</script>

<template>
  <section aria-label="Still open">
    <h2 class="headline">Not ready to issue</h2>
    <p class="quiet">{{ gaps.length }} still open:</p>
    <div v-for="group in groups" :key="group.stage" class="group">
      <h3>
        <router-link v-if="group.stage !== 'papers'" :to="{ name: group.stage }" class="link">{{
          group.words
        }}</router-link>
        <template v-else>{{ group.words }}</template>
      </h3>
      <ul>
        <li v-for="gap in group.gaps" :key="`${gap.kind}/${gap.key}`">{{ gap.text }}</li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.group {
  margin-top: 12px;
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
  font-size: 0.92rem;
}
li {
  padding: 2px 0;
}
</style>
