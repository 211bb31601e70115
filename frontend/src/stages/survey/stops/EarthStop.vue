<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import BondingDrawing from '../drawings/BondingDrawing.vue'
import IncomingMetal from './IncomingMetal.vue'
import { EARTHS } from './items'

const store = useJob()
const supply = computed(() => store.job!.supply)
</script>

<template>
  <TapField path="supply.earth_terminal" label="Main earthing terminal found?" choice="Seen" />
  <TapField path="supply.earthing_conductor_csa_mm2" label="Earthing conductor" :items="EARTHS" />
  <TapField
    v-if="supply.earthing === 'tt'"
    path="supply.earthing_conductor_protection"
    label="It is, in the ground"
    choice="ConductorProtection"
  />
  <IncomingMetal />
  <template v-if="supply.incoming_metal?.length || (!supply.incoming_metal && !supply.no_extraneous_parts)">
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
  <TapField
    v-if="supply.earthing === 'tt'"
    path="supply.insulated_to_rcds"
    label="All up to the first RCDs in double or reinforced insulation?"
    choice="Seen"
    hint="Matters where no RCD stands before all ways."
  />
  <div v-if="supply.earthing === 'tt'" class="pair">
    <JobField path="supply.electrode_design_ohm" label="Electrode, expected" kind="number" unit="Ω" />
    <JobField path="supply.electrode_location" label="Electrode, where" />
  </div>
</template>
