<script setup lang="ts">
// The checks of some stages: what needs attention first, any row opens its working.
import { computed, ref } from 'vue'

import type { Finding, Stage } from '../api/types'
import { verdictWords } from '../shared/format'
import { useJob } from '../job/useJob'
import FindingRow from './FindingRow.vue'

const props = defineProps<{ stages: Stage[]; title?: string; filter?: (finding: Finding) => boolean }>()

const store = useJob()
const opened = ref<string>()
const findings = computed(() =>
  (store.evaluation?.findings ?? []).filter((one) => props.stages.includes(one.stage) && (props.filter?.(one) ?? true)),
)
const summary = computed(() => {
  const counts = new Map<string, number>()
  for (const one of findings.value) {
    const word = one.is_open || one.verdict === 'meets' ? verdictWords(one).toLowerCase() : 'decided'
    counts.set(word, (counts.get(word) ?? 0) + 1)
  }
  return [...counts].map(([word, count]) => `${count} ${word}`).join(', ')
})
</script>

<template>
  <section class="ledger" :aria-label="title ?? 'Checks'">
    <header>
      <h2>{{ title ?? 'Checks' }}</h2>
      <p class="quiet" aria-live="polite">{{ summary }}</p>
    </header>
    <ul>
      <FindingRow
        v-for="one in findings"
        :key="one.key"
        :finding="one"
        :open="opened === one.key"
        @toggle="opened = opened === one.key ? undefined : one.key"
      />
    </ul>
    <p v-if="!findings.length" class="quiet empty">Nothing to check here yet.</p>
  </section>
</template>

<style scoped>
.ledger {
  padding: 18px 20px;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: baseline;
  font-size: 0.85rem;
  padding-bottom: 6px;
}
header p {
  text-align: right;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.empty {
  padding: 16px 0;
}
</style>
