<script setup lang="ts">
// Appliances and circuits, of the house or of a board, picked from a list with usual ratings, each editable.
import { mdiDeleteOutline } from '@mdi/js'
import { computed, ref } from 'vue'

import type { Appliance } from '../../api/types'
import { useJob } from '../../job/useJob'
import JobField from './JobField.vue'
import { valueAt } from '../paths'
import { useCatalogue } from '../useCatalogue'

const props = defineProps<{ path: string; add: string; empty: string }>()

const store = useJob()
const { catalogue, words } = useCatalogue()
const picked = ref<string | null>(null)
const appliances = computed(() => valueAt(store.job, props.path) as Appliance[])
const usual = computed(() =>
  (catalogue.value?.appliances ?? []).map((one) => ({
    value: one.name,
    words: rated(one.name, one.rating_kw === null ? `${one.rating_a} A` : `${one.rating_kw} kW`),
  })),
)
/** A name with its rating, once: some names tell appliances apart by it. */
const rated = (name: string, rating: string) => (name.endsWith(rating) ? name : `${name}, ${rating}`)

function pick(name: string | null): void {
  const found = catalogue.value?.appliances.find((one) => one.name === name)
  if (found) store.change(props.path, [...appliances.value, { ...found }], `${found.name} added`)
  picked.value = null
}
function remove(index: number): void {
  store.change(
    props.path,
    appliances.value.filter((_, place) => place !== index),
    `${appliances.value[index]!.name} taken out`,
  )
}
const unit = (one: Appliance) => (one.rating_kw === null ? 'rating_a' : 'rating_kw')
function toggleSocket(index: number, one: Appliance): void {
  store.change(`${props.path}.${index}.socket_in_unit`, !one.socket_in_unit, 'socket in the cooker’s control unit')
}
</script>

<template>
  <div>
    <ul v-if="appliances.length">
      <li v-for="(one, index) in appliances" :key="index">
        <JobField :path="`${path}.${index}.name`" :label="words('LoadKind', one.kind)" />
        <JobField
          :path="`${path}.${index}.${unit(one)}`"
          label="Rating"
          kind="number"
          :unit="unit(one) === 'rating_a' ? 'A' : 'kW'"
        />
        <v-btn
          :icon="mdiDeleteOutline"
          variant="text"
          size="small"
          :aria-label="`Take out ${one.name || words('LoadKind', one.kind)}`"
          @click="remove(index)"
        />
        <label v-if="one.kind === 'cooker'" class="socket"
          ><input type="checkbox" :checked="one.socket_in_unit" @change="toggleSocket(index, one)" /> its control unit
          holds a socket</label
        >
      </li>
    </ul>
    <p v-else class="quiet empty">{{ empty }}</p>
    <v-select
      v-model="picked"
      :label="add"
      :items="usual"
      item-title="words"
      item-value="value"
      @update:model-value="pick"
    />
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 104px auto;
  gap: 8px;
  align-items: center;
  padding: 5px 0;
}
.socket {
  grid-column: 1 / -1;
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 32px;
  font-size: 0.92rem;
}
.socket input {
  width: 20px;
  height: 20px;
  accent-color: var(--copper);
}
.empty {
  padding: 4px 0 12px;
}
</style>
