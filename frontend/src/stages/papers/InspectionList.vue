<script setup lang="ts">
// The schedule of inspections: one outcome a heading, all by keyboard or thumb.
import type { Inspection } from '../../api/types'
import { useJob } from '../../job/useJob'
import { useCatalogue } from '../../shared/useCatalogue'

const store = useJob()
const { options } = useCatalogue()

const found = (item: string) => store.job?.inspections.find((one) => one.item === item)

function keep(item: string, change: Partial<Inspection>): void {
  const blank = { item, outcome: 'good', note: '' } as Inspection
  const one = { ...(found(item) ?? blank), ...change }
  const order = options('InspectionItem').map((option) => option.value)
  const others = store.job!.inspections.filter((other) => other.item !== item)
  store.change('inspections', [...others, one].sort((a, b) => order.indexOf(a.item) - order.indexOf(b.item)))
}
</script>

<template>
  <section aria-label="Schedule of inspections">
    <h2>Schedule of inspections</h2>
    <ol>
      <li v-for="item in options('InspectionItem')" :key="item.value">
        <span :id="`item-${item.value}`" class="item">{{ item.words }}</span>
        <v-select
          :model-value="found(item.value)?.outcome ?? null" :items="options('InspectionOutcome')" item-title="words" item-value="value"
          :aria-labelledby="`item-${item.value}`" placeholder="not looked at yet" persistent-placeholder @update:model-value="keep(item.value, { outcome: $event })"
        />
        <v-text-field
          v-if="found(item.value)?.outcome === 'limited' || found(item.value)?.outcome === 'wrong'" label="Note" class="remark"
          :model-value="found(item.value)?.note" @update:model-value="keep(item.value, { note: $event })"
        />
      </li>
    </ol>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 24px;
}
ol {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 220px;
  gap: 6px 16px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.remark {
  grid-column: 1 / -1;
}
@media (max-width: 839px) {
  li {
    grid-template-columns: 1fr;
  }
}
</style>
