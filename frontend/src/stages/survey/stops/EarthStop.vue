<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import BondingDrawing from '../drawings/BondingDrawing.vue'
import { EARTHS, YES_NO } from './items'

const store = useJob()
const supply = computed(() => store.job!.supply)
</script>

<template>
  <TapField path="supply.earth_terminal" label="Main earthing terminal found?" choice="Seen" />
  <TapField path="supply.earthing_conductor_csa_mm2" label="Earthing conductor" :items="EARTHS" />
  <TapField path="supply.no_extraneous_parts" label="No metal service comes in" :items="YES_NO" />
  <template v-if="!supply.no_extraneous_parts">
    <TapField path="supply.bonded_services" label="Bonded to" choice="BondedService" many />
    <TapField path="supply.main_bonding_csa_mm2" label="Main bonding" :items="EARTHS" />
    <TapField
      path="supply.bonding_near_entry"
      label="Clamps where the service comes in?"
      choice="Seen"
      hint="Within 600 mm of entry, stop valve or meter, before any branch."
    >
      <template #picture="{ value }"><BondingDrawing :near="value === 'yes'" /></template>
    </TapField>
  </template>
  <div v-if="supply.earthing === 'tt'" class="pair">
    <JobField path="supply.electrode_design_ohm" label="Electrode, expected" kind="number" unit="Ω" />
    <JobField path="supply.electrode_location" label="Electrode, where" />
  </div>
</template>
