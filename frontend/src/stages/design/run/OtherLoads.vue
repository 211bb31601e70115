<script setup lang="ts">
// What a garage or outbuilding board feeds besides the car; counted with diversity on the sub-main.
import { mdiDeleteOutline } from '@mdi/js'
import { computed, ref } from 'vue'

import type { Appliance } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/JobField.vue'
import { useCatalogue } from '../../../shared/useCatalogue'

const props = defineProps<{ path: string; loads: Appliance[] }>()

const store = useJob()
const { catalogue, words } = useCatalogue()
const picked = ref<string | null>(null)
const usual = computed(() =>
  (catalogue.value?.appliances ?? []).map((one) => ({ value: one.name, words: `${one.name}, ${one.rating_kw === null ? `${one.rating_a} A` : `${one.rating_kw} kW`}` })),
)
function pick(name: string | null): void {
  const found = catalogue.value?.appliances.find((one) => one.name === name)
  if (found) store.change(props.path, [...props.loads, { ...found }])
  picked.value = null
}
const remove = (index: number) => store.change(props.path, props.loads.filter((_, place) => place !== index))
</script>

<template>
  <div class="loads">
    <p class="quiet small">{{ loads.length ? 'It also feeds, counted with diversity:' : 'It feeds nothing but the car.' }}</p>
    <div v-for="(one, index) in loads" :key="index" class="load">
      <JobField :path="`${path}.${index}.name`" :label="words('LoadKind', one.kind)" />
      <JobField :path="`${path}.${index}.${one.rating_kw === null ? 'rating_a' : 'rating_kw'}`" label="Rating" kind="number" :unit="one.rating_kw === null ? 'A' : 'kW'" />
      <v-btn :icon="mdiDeleteOutline" variant="text" size="small" :aria-label="`Take out ${one.name || words('LoadKind', one.kind)}`" @click="remove(index)" />
    </div>
    <v-select v-model="picked" label="Add a load" :items="usual" item-title="words" item-value="value" @update:model-value="pick" />
  </div>
</template>

<style scoped>
.loads {
  display: grid;
  gap: 8px;
  padding-top: 12px;
  max-width: 520px;
}
.load {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 120px auto;
  gap: 8px;
  align-items: center;
}
</style>
