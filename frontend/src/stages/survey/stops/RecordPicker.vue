<script setup lang="ts">
// Choosing the kind of charge point from the catalogue, and keeping one of your own, typed or from a JSON file.
import { computed, ref, useTemplateRef } from 'vue'

import { useJob } from '../../../job/useJob'
import { useRecords } from './useRecords'

const store = useJob()
const { shipped, own, failed, take, keep, remove } = useRecords()
const input = useTemplateRef<HTMLInputElement>('input')
const naming = ref(false)
const name = ref('')
const wrong = ref('')
const point = computed(() => store.job!.charge_points[store.pointIndex]!)
const records = computed(() => [...own.value, ...shipped.value])
const items = computed(() =>
  records.value.map((one) => ({ value: one.id, words: `${one.name}${one.invented ? '' : ' (your own)'}` })),
)
const chosen = computed(() => records.value.find((one) => one.id === point.value.record))
const mine = computed(() => own.value.some((one) => one.id === point.value.record))
const differs = computed(
  () =>
    chosen.value &&
    Object.entries(chosen.value.facts).some(
      ([field, value]) => JSON.stringify(value) !== JSON.stringify(point.value[field as keyof typeof point.value]),
    ),
)

function pick(id: string): void {
  const record = records.value.find((one) => one.id === id)
  if (record) take(record)
}
async function keepOwn(): Promise<void> {
  const id = name.value
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40)
  const facts = Object.fromEntries(
    Object.keys(shipped.value[0]!.facts).map((field) => [field, point.value[field as keyof typeof point.value]]),
  )
  if (await keep({ id, name: name.value.trim(), facts })) {
    store.change(`charge_points.${store.pointIndex}.record`, id)
    naming.value = false
  }
}
async function bring(): Promise<void> {
  const file = input.value?.files?.[0]
  if (!file) return
  try {
    const record = JSON.parse(await file.text()) as { id: string; [field: string]: unknown }
    wrong.value = (await keep(record)) ? '' : `${file.name}: ${failed.value}`
  } catch {
    wrong.value = `${file.name}: the file breaks off or is no JSON.`
  }
  if (input.value) input.value.value = ''
}
</script>

<template>
  <section aria-label="Kind of charge point">
    <v-select
      label="Kind, from the catalogue"
      :model-value="chosen ? chosen.id : null"
      :items="items"
      item-title="words"
      item-value="value"
      @update:model-value="pick"
    />
    <p class="quiet small">
      {{
        chosen
          ? differs
            ? 'Changed since: what is entered below counts.'
            : 'Its facts are filled in below.'
          : 'Kinds that ship are made up. Take the maker’s data, or keep your own kind.'
      }}
      <template v-if="chosen?.grant_eligible"> On the grant scheme’s list, as far as its record says.</template>
    </p>
    <div class="buttons">
      <button type="button" class="link" @click="naming = !naming">Keep what is below as your own kind</button>
      <button type="button" class="link" @click="input?.click()">Bring in a kind (JSON)</button>
      <button v-if="mine" type="button" class="link" @click="remove(point.record)">Take your own out</button>
      <input ref="input" type="file" accept=".json,application/json" hidden data-testid="record-file" @change="bring" />
    </div>
    <form v-if="naming" @submit.prevent="keepOwn">
      <v-text-field v-model="name" label="Name of this kind" maxlength="200" autofocus />
      <v-btn type="submit" color="ink" :disabled="!/[a-z0-9]/i.test(name)">Keep</v-btn>
    </form>
    <p v-if="wrong || failed" role="alert" class="failed">{{ wrong || failed }}</p>
  </section>
</template>

<style scoped>
.small {
  font-size: 0.88rem;
  padding-top: 4px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
}
.buttons .link {
  min-height: 44px;
}
form {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: center;
}
</style>
