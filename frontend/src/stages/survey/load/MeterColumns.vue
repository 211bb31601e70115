<script setup lang="ts">
// How a meter's file was read: its first lines, and the columns taken for time and energy; a wrong guess is put right.
import { computed, ref } from 'vue'

import type { HalfHourAnswer, MeterShape } from '../../../api/types'

const props = defineProps<{ read: HalfHourAnswer }>()
const emit = defineEmits<{ putRight: [shape: MeterShape] }>()

const open = ref(false)
const shape = computed(() => props.read.shape)
const names = computed(() =>
  (props.read.first_lines[0] ?? []).map((cell, place) => ({
    value: place,
    words: shape.value.heading ? `${place + 1}, ${cell}` : `column ${place + 1}`,
  })),
)
const clocks = computed(() => [{ value: null, words: 'in the same column' }, ...names.value])
const LAYOUTS = [
  { value: 'row', words: 'a half hour' },
  { value: 'day', words: 'a day' },
]
const ORDERS = [
  { value: true, words: 'day/month/year' },
  { value: false, words: 'month/day/year' },
]
const UNITS = ['kWh', 'Wh'].map((value) => ({ value, words: value }))
const told = computed(() => {
  const name = (place: number) => names.value[place]?.words ?? `column ${place + 1}`
  const day = shape.value.layout === 'day' ? 'a day a line, ' : ''
  const clock = shape.value.clock_column == null ? '' : ` and ${name(shape.value.clock_column)}`
  const energy = `${shape.value.unit} from ${name(shape.value.energy_column)}`
  return `${day}time from ${name(shape.value.time_column)}${clock}, ${energy}`
})
const set = (changed: Partial<MeterShape>) => emit('putRight', { ...shape.value, ...changed })
</script>

<template>
  <div class="columns">
    <p class="quiet small">
      Read as {{ told }}.
      <button type="button" class="link" :aria-expanded="open" @click="open = !open">Put that right</button>
    </p>
    <template v-if="open">
      <div class="scroll">
        <table>
          <tbody>
            <tr v-for="(line, place) in read.first_lines" :key="place">
              <td v-for="(cell, column) in line.slice(0, 8)" :key="column" class="figure">{{ cell }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div class="pair">
        <v-select
          label="A line is"
          :model-value="shape.layout"
          :items="LAYOUTS"
          item-title="words"
          item-value="value"
          @update:model-value="set({ layout: $event })"
        />
        <v-select
          label="Time or date in"
          :model-value="shape.time_column"
          :items="names"
          item-title="words"
          item-value="value"
          @update:model-value="set({ time_column: $event })"
        />
        <v-select
          label="Time of day in"
          :model-value="shape.clock_column"
          :items="clocks"
          item-title="words"
          item-value="value"
          @update:model-value="set({ clock_column: $event })"
        />
        <v-select
          label="Energy in"
          :model-value="shape.energy_column"
          :items="names"
          item-title="words"
          item-value="value"
          @update:model-value="set({ energy_column: $event })"
        />
        <v-select
          label="Dates are"
          :model-value="shape.day_first"
          :items="ORDERS"
          item-title="words"
          item-value="value"
          @update:model-value="set({ day_first: $event })"
        />
        <v-select
          label="Unit"
          :model-value="shape.unit"
          :items="UNITS"
          item-title="words"
          item-value="value"
          @update:model-value="set({ unit: $event })"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
}
table {
  border-collapse: collapse;
}
.scroll {
  overflow-x: auto;
  padding-bottom: 10px;
}
td {
  padding: 2px 14px 2px 0;
  white-space: nowrap;
  font-size: 0.85rem;
  border-bottom: 1px solid var(--line);
}
</style>
