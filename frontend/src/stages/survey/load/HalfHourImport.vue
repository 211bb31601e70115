<script setup lang="ts">
// A file of half-hourly energy: its peak and date. How it lies is guessed, shown, put right by hand and remembered, in
// the store, for files with the same heading; each line that can't be taken is told, and nothing is changed then.
import { computed, ref, useTemplateRef } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { HalfHourAnswer, MeterShape, Problem } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { dayAndTime } from '../../../shared/format'
import MeterColumns from './MeterColumns.vue'

const store = useJob()
const input = useTemplateRef<HTMLInputElement>('input')
const refused = ref<{ name: string; problem: Problem }>()
const kept = computed(() => store.job!.load.half_hours)

const file = ref<{ name: string; text: string }>()
const read = ref<HalfHourAnswer>()

async function bring(): Promise<void> {
  const chosen = input.value?.files?.[0]
  if (!chosen) return
  file.value = { name: chosen.name, text: await chosen.text() }
  input.value!.value = ''
  await take(null)
}
async function take(shape: MeterShape | null): Promise<void> {
  const { name, text } = file.value!
  refused.value = undefined
  try {
    read.value = await answer<HalfHourAnswer>(api.POST('/api/v1/half-hours', { body: { text, shape } }))
    store.change('load.half_hours', read.value.record, 'measured half hours')
  } catch (error) {
    refused.value = { name, problem: asProblem(error) }
  }
}
</script>

<template>
  <section aria-label="Half-hourly energy">
    <p v-if="kept" class="peak">
      Peak <b class="figure">{{ kept.peak_kwh }} kWh</b> in the half hour from <b>{{ dayAndTime(kept.peak_at) }}</b>.
      <span class="quiet"
        >{{ kept.entries }} half hours, {{ dayAndTime(kept.first_at) }} to {{ dayAndTime(kept.last_at)
        }}<template v-if="kept.missing">, {{ kept.missing }} missing</template>.
        <template v-if="kept.near_peak_hours">Near its peak for {{ kept.near_peak_hours }} h in a row.</template></span
      >
    </p>
    <p v-else class="quiet">A CSV file as the meter or the supplier exports it: a half hour a line, or a day a line.</p>
    <div class="buttons">
      <input
        ref="input"
        type="file"
        accept=".csv,.txt,text/csv,text/plain"
        hidden
        data-testid="half-hours"
        @change="bring"
      />
      <v-btn variant="outlined" @click="input?.click()">{{
        kept ? 'Bring in another file' : 'Bring in a CSV file'
      }}</v-btn>
      <v-btn v-if="kept" variant="text" @click="store.change('load.half_hours', null, 'measured half hours taken out')"
        >Take it out</v-btn
      >
    </div>
    <MeterColumns v-if="read" :read="read" @put-right="take" />
    <div v-if="refused" class="failed" role="alert">
      <p>
        <b>{{ refused.name }} can’t be taken.</b> Nothing was changed.
      </p>
      <ul>
        <li v-for="one in refused.problem.fields" :key="one.field">{{ one.message }}</li>
      </ul>
      <p v-if="!refused.problem.fields.length">{{ refused.problem.detail }}</p>
    </div>
  </section>
</template>

<style scoped>
section {
  min-width: 0;
}
.buttons {
  display: flex;
  gap: 8px;
  padding: 8px 0;
}
.failed {
  border-left: 4px solid var(--falls_short);
  background: var(--sheet);
  padding: 8px 14px;
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
</style>
