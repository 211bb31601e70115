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
// So many readings in a row are told as one line that opens.
const FEW = 3
const groups = computed(() =>
  (Object.keys(STAGES) as Gap['stage'][])
    .map((stage) => {
      const here = props.gaps.filter((gap) => gap.stage === stage)
      const readings = here.filter((gap) => gap.kind === 'reading')
      const folded = readings.length > FEW ? readings : []
      return { stage, words: STAGES[stage], folded, gaps: here.filter((gap) => !folded.includes(gap)) }
    })
    .filter((group) => group.gaps.length + group.folded.length),
)
const title = (gap: Gap) => gap.text.slice(gap.text.indexOf(': ') + 2)
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
        <li v-if="group.folded.length">
          <details>
            <summary>{{ group.folded.length }} readings missing, first: {{ title(group.folded[0]!) }}</summary>
            <ul>
              <li v-for="gap in group.folded" :key="gap.key">{{ title(gap) }}</li>
            </ul>
          </details>
        </li>
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
summary {
  cursor: pointer;
  min-height: 28px;
}
</style>
