<script setup lang="ts">
// What became of a learner's exercises, the newest first; one that runs can be gone on with.
import { computed } from 'vue'

import type { PracticeDesk } from '../api/types'
import { dayAndTime } from '../shared/format'

const props = defineProps<{ desk: PracticeDesk; learner: string }>()

const SHOWN = 12
const ended = computed(() => props.desk.results.filter((one) => one.total !== null))
const mean = computed(() => Math.round(ended.value.reduce((sum, one) => sum + one.total!, 0) / ended.value.length))
const own = (key: string) => ({ own: 'own job', link: 'by link' })[key] ?? ''
</script>

<template>
  <section v-if="desk.results.length" aria-labelledby="results">
    <h2 id="results">
      Your exercises<template v-if="ended.length">
        : <span class="figure">{{ ended.length }}</span> done, <span class="figure">{{ mean }}</span> of 100 on
        average</template
      >
    </h2>
    <p>
      <a :href="`/api/v1/practice/results.csv?learner=${encodeURIComponent(learner)}`" download class="link"
        >Save as CSV</a
      >
    </p>
    <ul>
      <li v-for="one in desk.results.slice(0, SHOWN)" :key="one.id">
        <router-link :to="{ name: 'exercise', params: { id: one.id } }" class="link">{{ one.title }}</router-link>
        <span class="quiet whose">{{ own(one.practice_set) }}</span>
        <span class="figure">{{ one.total === null ? 'goes on' : `${one.total} of 100` }}</span>
        <span class="quiet when">{{ dayAndTime(one.begun_at) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 80px 110px 160px;
  gap: 4px 12px;
  align-items: baseline;
  border-bottom: 1px solid var(--line);
  padding: 4px 0;
}
.link {
  text-decoration: none;
}
@media (max-width: 839px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .when,
  .whose {
    display: none;
  }
}
</style>
