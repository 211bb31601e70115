<script setup lang="ts">
// The schedule of inspections: one tap a heading, all by keyboard or thumb.
import { useTemplateRef } from 'vue'

import type { Inspection } from '../../api/types'
import { useJob } from '../../job/useJob'
import { foundSought, useSought } from '../../shared/fieldPlaces'
import { useCatalogue } from '../../shared/useCatalogue'

const store = useJob()
const { options } = useCatalogue()

const found = (item: string) => store.job?.inspections.find((one) => one.item === item)
const wantsNote = (item: string) => ['limited', 'wrong'].includes(found(item)?.outcome ?? '')

function keep(item: string, change: Partial<Inspection>): void {
  const blank = { item, outcome: 'good', note: '' } as Inspection
  const one = { ...(found(item) ?? blank), ...change }
  const order = options('InspectionItem').map((option) => option.value)
  const others = store.job!.inspections.filter((other) => other.item !== item)
  store.change(
    'inspections',
    [...others, one].sort((a, b) => order.indexOf(a.item) - order.indexOf(b.item)),
  )
}
const root = useTemplateRef<HTMLElement>('root')
useSought((path) => {
  const item = path.startsWith('inspection:') && path.slice('inspection:'.length)
  const first = item && root.value?.querySelector<HTMLElement>(`input[name="${CSS.escape(item)}"]`)
  if (!first) return
  foundSought()
  first.scrollIntoView({ block: 'center' })
  first.focus({ preventScroll: true })
})
const outcome = (value: string) => value as Inspection['outcome']
</script>

<template>
  <section ref="root" aria-label="Schedule of inspections">
    <h2>Schedule of inspections</h2>
    <fieldset v-for="item in options('InspectionItem')" :key="item.value">
      <legend>{{ item.words }}</legend>
      <div class="outcomes">
        <label v-for="one in options('InspectionOutcome')" :key="one.value">
          <input
            type="radio"
            :name="item.value"
            :value="one.value"
            :checked="found(item.value)?.outcome === one.value"
            @change="keep(item.value, { outcome: outcome(one.value) })"
          />
          <span>{{ one.words }}</span>
        </label>
      </div>
      <v-text-field
        v-if="wantsNote(item.value)"
        label="Note"
        class="remark"
        :model-value="found(item.value)?.note"
        @update:model-value="keep(item.value, { note: $event })"
      />
    </fieldset>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 24px;
}
h2 {
  margin-bottom: 8px;
}
fieldset {
  border-top: 1px solid var(--line);
  padding: 5px 0;
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 4px 16px;
}
legend {
  float: left;
  flex: 1 1 260px;
  font-size: 0.96rem;
}
.outcomes {
  display: grid;
  grid-template-columns: 64px 70px 124px 76px;
}
label {
  position: relative;
  cursor: pointer;
}
input {
  position: absolute;
  opacity: 0;
  inset: 0;
}
label span {
  display: flex;
  align-items: center;
  justify-content: center;
  min-height: 40px;
  border: 1px solid rgb(var(--v-border-color));
  margin-left: -1px;
  font-size: 0.9rem;
  background: var(--sheet);
}
label:first-child span {
  border-radius: 6px 0 0 6px;
}
label:last-child span {
  border-radius: 0 6px 6px 0;
}
input:checked + span {
  background: var(--ink);
  color: var(--paper);
  font-weight: 700;
}
input:focus-visible + span {
  outline: 3px solid var(--copper);
  outline-offset: 2px;
}
.remark {
  flex: 1 0 100%;
}
@media (max-width: 839px) {
  label span {
    min-height: 44px;
  }
}
</style>
