<script setup lang="ts">
import type { JobSummary } from '../api/types'
import { dayAndTime } from '../shared/format'
import VerdictMark from '../shared/VerdictMark.vue'

defineProps<{ job: JobSummary }>()
</script>

<template>
  <li>
    <router-link :to="{ name: 'design', params: { id: job.id } }">
      <span class="what">
        <b>{{ job.title }}</b>
        <span class="quiet">{{
          [job.reference, job.householder, job.address].filter(Boolean).join(' · ') || 'Nothing entered yet'
        }}</span>
      </span>
      <span class="state">
        <span v-if="job.falls_short || !job.open_checks"
          ><VerdictMark :verdict="job.verdict" />&#32;<span v-if="job.falls_short" class="quiet">{{
            job.falls_short
          }}</span></span
        >
        <span v-else
          ><b>{{ job.open_checks }}</b> <span class="quiet">still open</span></span
        >
        <span class="quiet figure">{{ job.readings_taken }}/{{ job.readings_wanted }} readings</span>
      </span>
      <span class="paper">
        <b v-if="job.paper" class="figure">{{ job.paper }}</b>
        <span class="quiet">{{ dayAndTime(job.changed_at) }}</span>
      </span>
    </router-link>
  </li>
</template>

<style scoped>
li + li {
  border-top: 1px solid var(--line);
}
a {
  display: grid;
  grid-template-columns: 1fr 190px 170px;
  gap: 4px 20px;
  padding: 12px 18px;
  color: inherit;
  text-decoration: none;
}
a:hover {
  background: var(--paper);
}
span.what,
span.state,
span.paper {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.quiet {
  font-size: 0.88rem;
}
.paper {
  text-align: right;
}
@media (max-width: 839px) {
  a {
    grid-template-columns: 1fr auto;
    padding: 12px 14px;
  }
  .what {
    grid-column: 1 / -1;
  }
}
</style>
