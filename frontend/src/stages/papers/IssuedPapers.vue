<script setup lang="ts">
// Papers issued, newest first; a superseded one stays readable.
import type { Paper } from '../../api/types'
import { dayAndTime } from '../../shared/format'
import { useJob } from '../../job/useJob'

defineProps<{ papers: Paper[] }>()
const store = useJob()
const PART_WORDS = {
  design: 'Design',
  construction: 'Construction',
  inspection_and_testing: 'Inspection and testing',
} as const
const PAPER_WORDS: Record<string, string> = {
  electrical_installation_certificate: 'Electrical Installation Certificate',
  removal_record: 'Record of a charge point taken away',
}
</script>

<template>
  <section aria-label="Papers">
    <h2>Papers of this job</h2>
    <p v-if="!papers.length" class="quiet">None issued yet.</p>
    <ul v-else>
      <li v-for="paper in papers" :key="paper.id" :class="{ old: paper.superseded_by }">
        <a :href="`/api/v1/papers/${paper.id}.pdf`" target="_blank" class="link"
          >{{ PAPER_WORDS[paper.kind] ?? PAPER_WORDS.electrical_installation_certificate }}
          <span class="figure">{{ paper.number }}</span></a
        >
        <span class="quiet"
          >Issued {{ dayAndTime(paper.issued_at)
          }}<template v-if="paper.superseded_by">, <b>superseded</b> by {{ paper.superseded_by }}</template></span
        >
        <span class="figure hash" :title="paper.sha256">SHA-256 {{ paper.sha256.slice(0, 16) }}…</span>
      </li>
    </ul>
    <template v-if="store.job!.elsewhere.signatures.length">
      <h2 class="apart">Signed elsewhere</h2>
      <p class="quiet">A job file told of these. They count for nothing here.</p>
      <ul>
        <li v-for="(one, place) in store.job!.elsewhere.signatures" :key="place">
          {{ PART_WORDS[one.part] }}
          <span class="quiet">{{ one.name }}, {{ one.signed_on }}</span>
        </li>
      </ul>
    </template>
    <p><a :href="`/api/v1/jobs/${store.id}/file`" class="link">Take the job file with you</a></p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 6px 0;
}
li {
  display: grid;
  padding: 8px 0;
  border-top: 1px solid var(--line);
}
.apart {
  margin-top: 22px;
}
.hash,
li .quiet {
  font-size: 0.84rem;
}
.old a {
  text-decoration: line-through;
}
a {
  text-decoration: none;
}
</style>
