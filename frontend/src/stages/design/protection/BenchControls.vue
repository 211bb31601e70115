<script setup lang="ts">
// What can be changed at the bench: where it breaks, the house you look at, the person, the car's earth.
import { computed } from 'vue'

import SliderField from '../../../shared/fields/SliderField.vue'
import TapGroup from '../../../shared/fields/TapGroup.vue'
import { MOST_HOUSES, type useBench } from './useBench'

const props = defineProps<{ state: ReturnType<typeof useBench> }>()

const bench = computed(() => props.state.bench.value!)
const street = computed(() => bench.value.street)
const chosen = computed(() => props.state.chosen.value)
const look = (house: number) => props.state.lookAt(house)
const BREAKS = [
  { value: 'nowhere' as const, words: 'whole' },
  { value: 'service' as const, words: 'broken in this service' },
  { value: 'main' as const, words: 'broken in the main' },
]
const PHASES = [0, 1, 2].map((value) => ({ value, words: `L${value + 1}` }))
const EARTHS = [
  { value: false, words: 'the house earth' },
  { value: true, words: 'its own electrode' },
]
// The electrode's slider goes by equal steps of proportion; its last place is no electrode.
const OHMS = [0.5, 1, 2, 3, 5, 8, 12, 20, 32, 50, 80, 120, 200, 400]
const place = computed(() => {
  const ohm = props.state.house.value?.electrode_ohm
  return ohm
    ? OHMS.reduce((best, one, index) => (Math.abs(one - ohm) < Math.abs(OHMS[best]! - ohm) ? index : best), 0)
    : OHMS.length
})
</script>

<template>
  <TapGroup
    label="The PEN is"
    :answers="BREAKS"
    :chosen="(one) => one === street.broken"
    @tap="street.broken = $event"
  />
  <div class="sliders">
    <SliderField
      label="Houses on the main"
      :min="1"
      :max="MOST_HOUSES"
      :step="1"
      :model-value="street.houses.length"
      :words="String(street.houses.length)"
      @update:model-value="state.setHouses"
    />
    <SliderField
      v-if="street.broken === 'main'"
      label="Broken before house"
      :min="1"
      :max="street.houses.length"
      :step="1"
      :model-value="street.broken_before + 1"
      :words="String(street.broken_before + 1)"
      @update:model-value="street.broken_before = $event - 1"
    />
    <SliderField
      label="You look at house"
      :min="1"
      :max="street.houses.length"
      :step="1"
      :model-value="chosen + 1"
      :words="chosen === street.here ? `${chosen + 1}, this house` : String(chosen + 1)"
      @update:model-value="look($event - 1)"
    />
    <SliderField
      label="Its load"
      :min="0.5"
      :max="80"
      :step="0.5"
      :model-value="state.load.value"
      :words="`${state.load.value} A`"
      @update:model-value="state.setLoad($event)"
    />
    <SliderField
      label="Its electrode"
      :min="0"
      :max="OHMS.length"
      :step="1"
      :model-value="place"
      :words="state.house.value?.electrode_ohm ? `${state.house.value.electrode_ohm} Ω` : 'none'"
      @update:model-value="state.setElectrode(OHMS[$event] ?? null)"
    />
    <SliderField
      label="Device opens within"
      :min="0.1"
      :max="5"
      :step="0.1"
      :model-value="bench.opens_within_s"
      :words="`${bench.opens_within_s} s`"
      @update:model-value="bench.opens_within_s = $event"
    />
    <SliderField
      label="Person"
      :min="500"
      :max="3000"
      :step="100"
      :model-value="bench.body_ohm"
      :words="`${bench.body_ohm} Ω`"
      @update:model-value="bench.body_ohm = $event"
    />
  </div>
  <div class="taps">
    <TapGroup
      label="It draws on"
      :answers="PHASES"
      :chosen="(one) => one === state.phase.value"
      @tap="state.setLoad(state.load.value || 8, $event)"
    />
    <TapGroup
      label="The car is on"
      :answers="EARTHS"
      :chosen="(one) => one === bench.car_on_own_electrode"
      @tap="bench.car_on_own_electrode = $event"
    />
    <v-btn v-if="chosen !== street.here" variant="outlined" @click="street.here = chosen">Make it this house</v-btn>
  </div>
</template>

<style scoped>
.taps {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 12px 26px;
}
</style>
