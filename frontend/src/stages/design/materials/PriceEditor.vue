<script setup lang="ts">
// The price list: edit a line, bring in a CSV, take it out as CSV, or go back to the invented one.
import { computed, ref, useTemplateRef } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { PriceLine, PriceList } from '../../../api/types'
import { typedNumber } from '../../../shared/format'

const emit = defineEmits<{ changed: [] }>()

const open = ref(false)
const list = ref<PriceList>()
const failed = ref('')
const search = ref('')
const file = useTemplateRef<HTMLInputElement>('file')
const shown = computed(() =>
  (list.value?.lines ?? []).filter((line) => line.name.toLowerCase().includes(search.value.trim().toLowerCase())),
)

async function take(asked: Promise<unknown>, news = true): Promise<void> {
  failed.value = ''
  try {
    list.value = await answer<PriceList>(asked as never)
    if (news) emit('changed')
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
function toggle(): void {
  open.value = !open.value
  if (open.value && !list.value) void take(api.GET('/api/v1/prices'), false)
}
/** A line that the user changed is no longer invented. */
function set(line: PriceLine, field: 'price' | 'work_min', text: string): void {
  const value = typedNumber(text)
  if (typeof value !== 'number') {
    failed.value = `${line.name}: “${text}” is no number.`
    return
  }
  const lines = list.value!.lines.map((one) =>
    one.key === line.key ? { ...one, [field]: value, invented: false } : one,
  )
  void take(api.PUT('/api/v1/prices', { body: { lines } }))
}
async function bring(): Promise<void> {
  const chosen = file.value?.files?.[0]
  if (chosen) await take(api.POST('/api/v1/prices/csv', { body: { text: await chosen.text() } }))
  if (file.value) file.value.value = ''
}
</script>

<template>
  <section aria-label="Price list">
    <button type="button" class="link" :aria-expanded="open" @click="toggle">
      {{ open ? 'Close the price list' : 'Your price list' }}
    </button>
    <template v-if="open">
      <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
      <p class="acts">
        <a href="/api/v1/prices.csv" download class="link">Save as CSV</a>
        <button type="button" class="link" @click="file?.click()">Bring in a CSV</button>
        <input
          ref="file"
          type="file"
          accept=".csv,text/csv"
          class="sr-only"
          tabindex="-1"
          aria-label="Price list as CSV"
          @change="bring"
        />
        <button type="button" class="link" @click="take(api.DELETE('/api/v1/prices'))">
          Back to the invented list
        </button>
      </p>
      <v-text-field v-model="search" label="Find an item" clearable />
      <table v-if="list">
        <thead>
          <tr>
            <th scope="col">Item</th>
            <th scope="col" class="num">Price for one</th>
            <th scope="col" class="num">Work, min</th>
            <th scope="col"></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in shown" :key="line.key">
            <th scope="row">
              {{ line.name }} <span class="quiet small">per {{ line.unit }}</span>
            </th>
            <td class="num">
              <input
                :value="line.price"
                inputmode="decimal"
                :aria-label="`Price of ${line.name}`"
                @change="set(line, 'price', ($event.target as HTMLInputElement).value)"
              />
            </td>
            <td class="num">
              <input
                :value="line.work_min"
                inputmode="decimal"
                :aria-label="`Working time of ${line.name}`"
                @change="set(line, 'work_min', ($event.target as HTMLInputElement).value)"
              />
            </td>
            <td class="quiet small">{{ line.invented ? 'invented' : 'yours' }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
td input {
  width: 84px;
  min-height: 36px;
  text-align: right;
  font-family: var(--figures);
  color: inherit;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 0 6px;
}
@media (max-width: 839px) {
  td input {
    min-height: 44px;
  }
}
</style>
