<script setup lang="ts">
// The route as walked: written in one line, or one row a section, in the order of walking from the board.
import { nextTick, ref, useTemplateRef } from 'vue'

import { useSought } from '../../../shared/fieldPlaces'
import RouteUnsaid from './RouteUnsaid.vue'
import SectionRow from './SectionRow.vue'
import ShorthandField from './ShorthandField.vue'
import { useDragOrder } from './useDragOrder'
import { useRouteWriting } from './useRouteWriting'

const props = defineProps<{ circuitIndex: number; title: string }>()

const box = useTemplateRef<HTMLElement>('box')
const list = useTemplateRef<HTMLElement>('list')
const opened = ref<number>()
useSought((path) => {
  const [, found] = new RegExp(`^circuits\\.${props.circuitIndex}\\.route\\.(\\d+)\\.`).exec(path) ?? []
  if (found) opened.value = Number(found)
})
const { circuit, route, failed, write, remove, move } = useRouteWriting(() => props.circuitIndex)

function reorder(from: number, to: number): void {
  opened.value = undefined
  move(from, to)
}
const drag = useDragOrder(() => [...(list.value?.children ?? [])] as HTMLElement[], reorder)

async function byKey(index: number, by: number): Promise<void> {
  reorder(index, index + by)
  await nextTick()
  list.value?.querySelectorAll<HTMLElement>('.handle')[index + by]?.focus()
}
async function add(): Promise<void> {
  if (!(await write({ act: 'add' }))) return
  await nextTick()
  const field = list.value?.querySelector<HTMLInputElement>('li:last-child .length input')
  field?.focus()
  field?.select()
}
function focus(): void {
  box.value?.scrollIntoView({ block: 'nearest' })
  const line = box.value?.querySelector<HTMLInputElement>('.shorthand input')
  const first = list.value?.querySelector<HTMLInputElement>('input')
  ;(route.value.length ? first : line)?.focus()
}
defineExpose({ focus })
</script>

<template>
  <section ref="box" aria-label="Route">
    <h2>{{ title }}</h2>
    <ShorthandField
      :failed="failed.index === undefined ? failed.text : ''"
      :start="!route.length"
      :write="(text) => write({ act: 'write', text })"
    />
    <ol ref="list">
      <SectionRow
        v-for="(section, index) in route"
        :key="index"
        :circuit-index="circuitIndex"
        :circuit="circuit"
        :section="section"
        :index="index"
        :opened="opened === index"
        :failed="failed.index === index ? failed.text : ''"
        :class="{ dragged: drag.from.value === index, target: drag.over.value === index && drag.from.value !== index }"
        @open="opened = opened === index ? undefined : index"
        @write="write($event)"
        @remove="remove(index)"
        @move="byKey(index, $event)"
        @drag-start="drag.start($event, index)"
        @drag-move="drag.move"
        @drag-end="drag.end"
      />
    </ol>
    <p v-if="!route.length" class="quiet">Walk from the board: one section for each change of surroundings.</p>
    <RouteUnsaid :circuit-index="circuitIndex" />
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
.dragged {
  opacity: 0.5;
}
.target {
  box-shadow: inset 0 3px 0 var(--copper);
}
</style>
