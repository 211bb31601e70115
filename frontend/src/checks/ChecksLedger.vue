<script setup lang="ts">
// The checks of some stages: what needs attention, what is tight, then the rest folded by what it is about.
import { useStorage } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef } from 'vue'

import type { Finding, Settled, Stage } from '../api/types'
import { settledWords, verdictWords } from '../shared/format'
import { useJob } from '../job/useJob'
import { foundSought, useSought } from '../shared/fieldPlaces'
import FindingRow from './FindingRow.vue'
import { isOpen, useCheckGroups } from './useCheckGroups'

const props = defineProps<{ stages: Stage[]; title?: string; filter?: (one: Finding | Settled) => boolean }>()

const store = useJob()
const opened = ref<string>()
const findings = computed(() =>
  [...(store.evaluation?.findings ?? []), ...(store.evaluation?.settled ?? [])].filter(
    (one) => props.stages.includes(one.stage) && (props.filter?.(one) ?? true),
  ),
)
const { attention, tight, rest } = useCheckGroups(() => findings.value)
const every = useStorage('fulmen.checks.unfolded', false)
const unfolded = ref(new Set<string>())
// A few rows are read at once: folding them would only hide them.
const FEW = 6
const shown = (name: string) => every.value || findings.value.length <= FEW || unfolded.value.has(name)
const parts = computed(() => [
  { name: '', rows: attention.value, folds: false },
  { name: 'Tight: less than a tenth to spare', rows: tight.value, folds: false },
  ...rest.value.map((one) => ({ ...one, folds: true })),
])
function fold(name: string): void {
  const now = new Set(unfolded.value)
  if (!now.delete(name)) now.add(name)
  unfolded.value = now
}
// Whoever was sent to a check finds its row open.
const root = useTemplateRef<HTMLElement>('root')
useSought(
  async (path) => {
    const row = findings.value.find((one) => path === `check:${one.key}`)
    if (!row) return
    opened.value = row.key
    await nextTick()
    const button = root.value?.querySelector<HTMLElement>(`[data-key="${CSS.escape(row.key)}"] > button`)
    if (!button) return
    foundSought()
    button.scrollIntoView({ block: 'center' })
    button.focus({ preventScroll: true })
  },
  () => findings.value,
)
const summary = computed(() => {
  const counts = new Map<string, number>()
  for (const one of findings.value) {
    const word = isOpen(one) ? verdictWords(one).toLowerCase() : settledWords(one.verdict)
    counts.set(word, (counts.get(word) ?? 0) + 1)
  }
  return [...counts].map(([word, count]) => `${count} ${word}`).join(', ')
})
</script>

<template>
  <section ref="root" class="ledger" :aria-label="title ?? 'Checks'">
    <header>
      <h2>{{ title ?? 'Checks' }}</h2>
      <p class="quiet" aria-live="polite">{{ summary }}</p>
    </header>
    <template v-for="part in parts" :key="part.name">
      <h3 v-if="part.folds">
        <button type="button" :aria-expanded="shown(part.name)" @click="fold(part.name)">
          <svg viewBox="0 0 12 12" width="12" height="12" aria-hidden="true"><path d="M4 2l4 4-4 4" /></svg>
          {{ part.name }}<span class="quiet figure">{{ part.rows.length }}</span>
        </button>
      </h3>
      <h3 v-else-if="part.name && part.rows.length" class="plain">{{ part.name }}</h3>
      <ul v-if="part.rows.length && (!part.folds || shown(part.name))">
        <FindingRow
          v-for="one in part.rows"
          :key="one.key"
          :finding="one"
          :open="opened === one.key"
          @toggle="opened = opened === one.key ? undefined : one.key"
        />
      </ul>
    </template>
    <label v-if="rest.length && findings.length > FEW" class="every"
      ><input v-model="every" type="checkbox" /> Show what holds as well</label
    >
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
h3 {
  font-size: 0.95rem;
  border-top: 1px solid var(--line);
}
h3.plain {
  color: var(--quiet);
  font-size: 0.85rem;
  padding: 12px 0 4px;
}
h3 button {
  display: flex;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 44px;
  background: none;
  border: 0;
  font: inherit;
  font-weight: 700;
  color: inherit;
  text-align: left;
  cursor: pointer;
}
h3 button .figure {
  margin-left: auto;
  font-weight: 400;
}
h3 path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 2;
}
h3 button[aria-expanded='true'] svg {
  transform: rotate(90deg);
}
.every {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  font-size: 0.88rem;
  color: var(--quiet);
  border-top: 1px solid var(--line);
}
.every input {
  width: 20px;
  height: 20px;
  accent-color: var(--copper);
}
.empty {
  padding: 16px 0;
}
</style>
