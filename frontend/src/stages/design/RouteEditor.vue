<script setup lang="ts">
// The route as walked: one row a section, in the order of walking from the board.
import { mdiArrowDown, mdiArrowUp, mdiDeleteOutline } from '@mdi/js'
import { computed, nextTick, ref, useTemplateRef } from 'vue'

import type { Section } from '../../api/types'
import { useJob } from '../../job/useJob'
import JobField from '../../shared/JobField.vue'
import { useCatalogue } from '../../shared/useCatalogue'
import SectionDetails from './SectionDetails.vue'
import { METHOD_FOR, newSection } from './sections'

const props = defineProps<{ circuitIndex: number }>()

const store = useJob()
const { catalogue, options } = useCatalogue()
const list = useTemplateRef<HTMLElement>('list')
const opened = ref<number>()
const path = computed(() => `circuits.${props.circuitIndex}.route`)
const circuit = computed(() => store.job!.circuits[props.circuitIndex]!)
const route = computed(() => circuit.value.route)
const cable = computed(() => catalogue.value?.cables.find((one) => one.id === circuit.value.cable.record))

// Methods that no table rates for this cable stay choosable, marked so.
const methods = computed(() =>
  options('ReferenceMethod').map((one) => ({
    value: one.value,
    words: cable.value?.methods.includes(one.value) ? one.words : `${one.words} (no rating for this cable)`,
  })),
)

function set(sections: Section[]): void {
  store.change(path.value, sections)
}
async function add(): Promise<void> {
  set([...route.value, newSection(route.value.at(-1))])
  await nextTick()
  const fields = list.value?.querySelectorAll<HTMLInputElement>('li:last-child .length input')
  fields?.[0]?.focus()
  fields?.[0]?.select()
}
function remove(index: number): void {
  opened.value = undefined
  set(route.value.filter((_, place) => place !== index))
}
function move(index: number, by: number): void {
  const moved = [...route.value]
  const [section] = moved.splice(index, 1)
  moved.splice(index + by, 0, section!)
  opened.value = undefined
  set(moved)
}
/** New surroundings bring the method they usually mean; it can be changed after. */
function surround(index: number, surroundings: Section['surroundings']): void {
  const section = { ...route.value[index]!, surroundings, method: METHOD_FOR[surroundings], in_duct: surroundings === 'duct' }
  set(route.value.map((one, place) => (place === index ? section : one)))
}
async function focus(): Promise<void> {
  if (!route.value.length) return add()
  await nextTick()
  list.value?.scrollIntoView({ block: 'center' })
  list.value?.querySelector<HTMLInputElement>('input')?.focus()
}
defineExpose({ focus })
</script>

<template>
  <section aria-label="Route">
    <h2>The route, as walked from the board</h2>
    <ol ref="list">
      <li v-for="(section, index) in route" :key="index">
        <span class="number figure">{{ index + 1 }}</span>
        <v-select
          label="Surroundings" :model-value="section.surroundings" :items="options('Surroundings')" item-title="words" item-value="value" class="surroundings"
          @update:model-value="surround(index, $event)"
        />
        <JobField :path="`${path}.${index}.method`" label="Method" kind="choice" :items="methods" class="method" />
        <JobField :path="`${path}.${index}.length_m`" label="Length" kind="number" unit="m" class="length" />
        <span class="tools">
          <v-btn :icon="mdiArrowUp" variant="text" size="small" :aria-label="`Move section ${index + 1} up`" :disabled="index === 0" @click="move(index, -1)" />
          <v-btn :icon="mdiArrowDown" variant="text" size="small" :aria-label="`Move section ${index + 1} down`" :disabled="index === route.length - 1" @click="move(index, 1)" />
          <v-btn :icon="mdiDeleteOutline" variant="text" size="small" :aria-label="`Take section ${index + 1} out`" @click="remove(index)" />
          <button type="button" class="link" :aria-expanded="opened === index" @click="opened = opened === index ? undefined : index">More</button>
        </span>
        <SectionDetails v-if="opened === index" :path="`${path}.${index}`" :section="section" class="details" />
      </li>
    </ol>
    <p v-if="!route.length" class="quiet">Walk from the board to the charge point: one section for each change of surroundings.</p>
    <v-btn variant="outlined" class="add" @click="add">Add a section</v-btn>
  </section>
</template>

<style scoped>
.add {
  margin-top: 12px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 20px minmax(120px, 1fr) minmax(130px, 1.4fr) 118px auto;
  gap: 8px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
.tools {
  display: flex;
  align-items: center;
  white-space: nowrap;
}
.details {
  grid-column: 2 / -1;
}
@media (max-width: 839px) {
  li {
    grid-template-columns: 20px 1fr 1fr;
  }
  .method {
    grid-column: 2 / -1;
    order: 3;
  }
  .tools {
    grid-column: 2 / -1;
    order: 4;
  }
  .details {
    order: 5;
  }
}
</style>
