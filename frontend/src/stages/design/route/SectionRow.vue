<script setup lang="ts">
// One section: handle, surroundings, length, and the method that follows; the rest unfolds.
import { mdiDeleteOutline, mdiDragHorizontalVariant } from '@mdi/js'
import { computed } from 'vue'

import type { Circuit, Section } from '../../../api/types'
import JobField from '../../../shared/fields/JobField.vue'
import { useCatalogue } from '../../../shared/useCatalogue'
import { useCables } from '../useCables'
import { useLaidSection } from '../useLaidSection'
import SectionDetails from './SectionDetails.vue'
import type { RouteAct } from './useRouteWriting'

const props = defineProps<{
  circuitIndex: number
  circuit: Circuit
  section: Section
  index: number
  opened: boolean
  failed: string
}>()
const emit = defineEmits<{
  open: []
  write: [act: RouteAct]
  remove: []
  move: [by: number]
  dragStart: [event: PointerEvent]
  dragMove: [event: PointerEvent]
  dragEnd: []
}>()

const { options } = useCatalogue()
const { words } = useCables()
const { section: laid } = useLaidSection(() => [props.circuit.id, props.index])
const path = computed(() => `circuits.${props.circuitIndex}.route.${props.index}`)
const last = computed(() => props.index === props.circuit.route.length - 1)
const surround = (surroundings: Section['surroundings']) =>
  emit('write', { act: 'surround', index: props.index, surroundings })

function onKey(event: KeyboardEvent): void {
  const by = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (by === undefined) return
  event.preventDefault()
  if ((by < 0 && props.index > 0) || (by > 0 && !last.value)) emit('move', by)
}
</script>

<template>
  <li>
    <button
      type="button"
      class="handle"
      :aria-label="`Section ${index + 1}: drag, or move it with the up and down keys`"
      title="Drag, or use the up and down keys"
      @keydown="onKey"
      @pointerdown="emit('dragStart', $event)"
      @pointermove="emit('dragMove', $event)"
      @pointerup="emit('dragEnd')"
      @pointercancel="emit('dragEnd')"
    >
      <svg viewBox="0 0 24 24" width="20" height="20" aria-hidden="true">
        <path :d="mdiDragHorizontalVariant" fill="currentColor" />
      </svg>
      <span class="figure">{{ index + 1 }}</span>
    </button>
    <v-select
      label="Surroundings"
      :model-value="section.surroundings"
      :items="options('Surroundings')"
      item-title="words"
      item-value="value"
      class="surroundings"
      @update:model-value="surround"
    />
    <JobField :path="`${path}.length_m`" label="Length" kind="number" unit="m" class="length" />
    <span class="method quiet small">{{ laid ? `method ${laid.method}` : '' }}</span>
    <span class="tools">
      <v-btn
        :icon="mdiDeleteOutline"
        variant="text"
        size="small"
        :aria-label="`Take section ${index + 1} out`"
        @click="emit('remove')"
      />
      <button type="button" class="link" :aria-expanded="opened" @click="emit('open')">
        {{ opened ? 'Less' : 'More' }}
      </button>
    </span>
    <p v-if="section.cable" class="own quiet small">{{ words(section.cable) }}, joined here</p>
    <SectionDetails
      v-if="opened"
      :path="path"
      :circuit="circuit"
      :section="section"
      :index="index"
      class="details"
      @write="emit('write', $event)"
      @move="emit('move', $event)"
    />
    <p v-if="failed" role="alert" class="failed">{{ failed }}</p>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 46px minmax(140px, 1fr) 118px 84px auto;
  gap: 8px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
.handle {
  display: flex;
  align-items: center;
  gap: 2px;
  min-height: 44px;
  background: none;
  border: 0;
  color: var(--quiet);
  font: inherit;
  cursor: grab;
  touch-action: none;
}
.tools {
  display: flex;
  align-items: center;
  white-space: nowrap;
}
.own,
.details,
.failed {
  grid-column: 2 / -1;
}
@media (max-width: 839px) {
  li {
    grid-template-columns: 46px minmax(96px, 1fr) auto auto;
  }
  .surroundings {
    grid-column: 2 / -1;
  }
  .length {
    grid-column: 2;
  }
}
</style>
