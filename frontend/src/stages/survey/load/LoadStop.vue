<script setup lang="ts">
// The house's demand: added up with diversity, measured, or entered; then the ways out when it does not fit.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import ApplianceList from './ApplianceList.vue'
import DemandBar from './DemandBar.vue'
import DemandTable from './DemandTable.vue'
import HalfHourImport from './HalfHourImport.vue'
import WaysOut from './WaysOut.vue'

const store = useJob()
const method = computed(() => store.job!.load.method)
</script>

<template>
  <TapField path="load.method" label="How is the house’s demand known?" choice="DemandMethod" />
  <template v-if="method === 'measured'">
    <HalfHourImport />
    <div v-if="!store.job?.load.half_hours" class="pair">
      <JobField path="load.measured_a" label="Measured maximum, without the car" kind="number" unit="A" />
      <JobField path="load.measured_how" label="How it was measured" />
    </div>
  </template>
  <JobField
    v-if="method === 'entered'"
    path="supply.maximum_demand_a"
    label="Demand with the car"
    kind="number"
    unit="A"
    class="short"
  />
  <ApplianceList :counted="method === 'added_up'" />
  <DemandBar />
  <DemandTable />
  <JobField
    path="supply.load_limit_a"
    label="Load limit, if one is set"
    kind="number"
    unit="A"
    class="short"
    hint="Held by the charge point’s current clamp round the line tail"
  />
  <p v-if="store.job!.supply.load_limit_a !== null" class="quiet small">
    Till the clamp’s test is written down with the live tests the limit is only a plan: the certificate waits for it.
  </p>
  <WaysOut />
</template>
