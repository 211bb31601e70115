<script setup lang="ts">
// The facts that the present choices ask for, and the device's breaking capacity.
import { computed } from 'vue'

import { useJob } from '../../job/useJob'
import FieldGroup from '../../shared/fields/FieldGroup.vue'
import { POLES } from '../../shared/fields/guardChoices'
import JobField from '../../shared/fields/JobField.vue'
import OpenPenFields from '../../shared/fields/OpenPenFields.vue'
import TapField from '../../shared/fields/TapField.vue'
import { typedNumber } from '../../shared/format'

const props = defineProps<{ circuitIndex: number }>()

const store = useJob()
const supply = computed(() => store.job!.supply)
const at = (field: string) => `charge_points.${store.pointIndex}.arrangement.${field}`
const arrangement = computed(() => store.job!.charge_points[store.pointIndex]!.arrangement)
// A separate open-PEN device along this run: how it senses is told where it stands.
const device = computed(() =>
  store.guards?.guards.find((one) => one.kind === 'open_pen_device' && one.stands !== 'unit'),
)
const ownElectrode = computed(() => arrangement.value.car_earth === 'own_electrode' && supply.value.earthing !== 'tt')
const onHouseEarth = computed(() => arrangement.value.car_earth === 'house_earth' && supply.value.earthing !== 'tt')
const twoEarths = computed(
  () =>
    ownElectrode.value ||
    (onHouseEarth.value && ['device_in_unit', 'separate_device'].includes(arrangement.value.open_pen)),
)
const watchesEarth = computed(() => {
  const place = at('measuring_electrode')
  return arrangement.value.measuring_electrode !== 'not_seen' || !!store.evaluation?.asked.includes(place)
})
function setLeast(phase: number, typed: string): void {
  const loads = [...(arrangement.value.least_load_a ?? [0, 0, 0])] as unknown[]
  loads[phase] = typedNumber(typed)
  store.change(at('least_load_a'), loads)
}
const CONDUCTORS = [2.5, 4, 6, 10, 16, 25].map((value) => ({ value, words: `${value} mm²` }))
const ICN = [6, 10, 15].map((value) => ({ value, words: `${value} kA` }))
</script>

<template>
  <FieldGroup title="What these choices rest on" class="facts">
    <JobField
      :path="`circuits.${props.circuitIndex}.device.breaking_capacity_ka`"
      label="Device's breaking capacity"
      kind="choice"
      :items="ICN"
    />
    <template v-if="ownElectrode">
      <JobField :path="at('electrode_design_ohm')" label="Car's electrode, expected" kind="number" unit="Ω" />
      <JobField :path="at('electrode_conductor_csa_mm2')" label="Conductor to it" kind="choice" :items="CONDUCTORS" />
      <JobField
        :path="at('electrode_conductor_protection')"
        label="That conductor is"
        kind="choice"
        choice="ConductorProtection"
      />
      <JobField :path="at('separation_m')" label="To metal on the house earth" kind="number" unit="m" />
      <TapField
        :path="at('electrode_clear')"
        label="Electrode clear of buried metal on the house earth?"
        choice="Seen"
        class="wide"
      />
      <TapField
        :path="at('insulated_to_rcd')"
        label="All before the unit’s own RCD in double or reinforced insulation?"
        choice="Seen"
        class="wide"
        hint="Matters where no RCD stands before the cable."
      />
    </template>
    <TapField
      v-if="twoEarths"
      :path="at('metal_at_unit')"
      label="Armour, conduit or trunking at the unit"
      choice="MetalAtUnit"
      class="wide"
      hint="What touches the unit’s earth bypasses the device."
    />
    <TapField
      v-if="watchesEarth"
      :path="at('measuring_electrode')"
      label="The electrode it measures against stands, and was tested"
      choice="Seen"
      class="wide"
      hint="Out of reach of what is on the house earth."
    />
    <template v-if="onHouseEarth && arrangement.open_pen === 'three_phase_balance'">
      <v-text-field
        v-for="phase in 3"
        :key="phase"
        :label="`Least load always on, L${phase}`"
        suffix="A"
        inputmode="decimal"
        :model-value="arrangement.least_load_a?.[phase - 1] ?? ''"
        :error-messages="store.errorAt(at('least_load_a'))"
        @update:model-value="setLeast(phase - 1, $event)"
      />
    </template>
    <OpenPenFields
      v-if="onHouseEarth && arrangement.open_pen === 'separate_device' && device"
      :path="`${device.field}.open_pen`"
    />
    <JobField
      v-if="onHouseEarth && arrangement.open_pen === 'separate_device' && device"
      :path="`${device.field}.poles`"
      label="Poles it opens"
      kind="choice"
      :items="POLES"
    />
    <template v-if="onHouseEarth && arrangement.open_pen === 'low_electrode'">
      <JobField path="supply.electrode_design_ohm" label="Electrode, expected" kind="number" unit="Ω" />
      <JobField path="supply.electrode_location" label="Electrode, where" />
      <JobField :path="at('electrode_conductor_csa_mm2')" label="Conductor to it" kind="choice" :items="CONDUCTORS" />
    </template>
  </FieldGroup>
</template>

<style scoped>
.facts {
  margin-top: 26px;
}
</style>
