<script setup lang="ts">
// The ways out when the demand does not fit, each with the figure it comes to; one press takes a way.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import VerdictMark from '../../../shared/VerdictMark.vue'

const store = useJob()
const ways = computed(() => store.evaluation!.ways_out)
const wanted = computed(() => store.evaluation!.ways_wanted)
</script>

<template>
  <details v-if="ways.length" :open="wanted">
    <summary>{{ wanted ? 'It does not fit. The ways out:' : 'Other ways to hold the demand' }}</summary>
    <ul>
      <li v-for="way in ways" :key="way.key">
        <p>
          <VerdictMark :verdict="way.verdict" />&ensp;<b>{{ way.title }}</b>
        </p>
        <p class="figure result">
          {{ way.result_a.toFixed(0) }} A <span class="quiet">of {{ way.limit_a.toFixed(0) }} A</span>
        </p>
        <p class="quiet detail">
          {{ way.detail }} <span class="figure">{{ way.working.symbol }} = {{ way.working.figures }}</span>
        </p>
        <v-btn
          v-if="way.changes.length"
          variant="outlined"
          size="small"
          @click="store.changeAll(way.changes, way.title)"
          >Take this way</v-btn
        >
      </li>
    </ul>
  </details>
</template>

<style scoped>
summary {
  font-weight: 700;
  cursor: pointer;
  min-height: 44px;
  display: flex;
  align-items: center;
}
summary::before {
  content: '▸';
  padding-right: 8px;
  color: var(--copper);
}
details[open] > summary::before {
  content: '▾';
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 14px;
  align-items: start;
  border-top: 1px solid var(--line);
  padding: 10px 0;
}
.detail {
  font-size: 0.88rem;
}
.detail .figure {
  overflow-wrap: anywhere;
}
.result {
  text-align: right;
}
</style>
