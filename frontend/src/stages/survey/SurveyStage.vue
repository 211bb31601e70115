<script setup lang="ts">
// What is there: site, supply, earth, board, charge point, from the street inwards.
import ChecksLedger from '../../checks/ChecksLedger.vue'
import { useJob } from '../../job/useJob'
import FieldGroup from '../../shared/FieldGroup.vue'
import JobField from '../../shared/JobField.vue'
import StageColumns from '../../shared/StageColumns.vue'
import BoardFields from './BoardFields.vue'
import ChargePointFields from './ChargePointFields.vue'

const store = useJob()
const FUSES = [60, 80, 100].map((value) => ({ value, words: `${value} A` }))
const SIZES = [4, 6, 10, 16, 25, 35].map((value) => ({ value, words: `${value} mm²` }))
const YES_NO = [
  { value: true, words: 'yes' },
  { value: false, words: 'no' },
]
</script>

<template>
  <StageColumns>
    <FieldGroup title="The job">
      <JobField path="title" label="Name of the job" />
      <JobField path="reference" label="Your reference" />
      <JobField path="site.householder" label="Householder" />
      <JobField path="site.work" label="Kind of work" kind="choice" choice="WorkKind" />
      <JobField path="site.car_place" label="Where a car can be charged" kind="choice" choice="CarPlace" />
      <JobField path="site.address" label="Address" kind="paragraph" class="wide" />
      <JobField path="site.extent" label="What the certificate covers" kind="paragraph" class="wide" />
    </FieldGroup>
    <FieldGroup title="Cut-out and supply">
      <JobField path="supply.earthing" label="Earthing, by looking" kind="choice" choice="Earthing" />
      <JobField path="supply.looped" label="Looped to a neighbour" kind="choice" choice="Seen" />
      <template v-if="store.job?.supply.earthing === 'tn_s'">
        <JobField path="supply.tns_school" label="TN-S is taken" kind="choice" choice="TnsSchool" />
        <JobField path="supply.tns_confirmed_in_writing" label="Operator confirmed TN-S in writing" kind="choice" :items="YES_NO" />
      </template>
      <JobField path="supply.cut_out_fuse_a" label="Cut-out fuse" kind="choice" :items="FUSES" />
      <JobField path="supply.cut_out_fuse_standard" label="Fuse standard, as marked" />
      <JobField path="supply.maximum_demand_a" label="Demand with the car" kind="number" unit="A" />
      <JobField path="supply.load_limit_a" label="Load limit, if one is set" kind="number" unit="A" />
      <JobField path="supply.ze_enquiry_ohm" label="Ze by enquiry" kind="number" unit="Ω" />
      <JobField path="supply.pscc_enquiry_ka" label="Fault current by enquiry" kind="number" unit="kA" />
      <JobField path="supply.supply_number" label="Supply number" />
    </FieldGroup>
    <FieldGroup title="Tails, earth and bonding">
      <JobField path="supply.tails_csa_mm2" label="Tails" kind="choice" :items="SIZES" />
      <JobField path="supply.tails_length_m" label="Tails, length" kind="number" unit="m" />
      <JobField path="supply.earthing_conductor_csa_mm2" label="Earthing conductor" kind="choice" :items="SIZES" />
      <JobField path="supply.no_extraneous_parts" label="No metal service comes in" kind="choice" :items="YES_NO" />
      <template v-if="!store.job?.supply.no_extraneous_parts">
        <JobField path="supply.main_bonding_csa_mm2" label="Main bonding" kind="choice" :items="SIZES" />
        <JobField path="supply.bonded_services" label="Bonded to" kind="choices" choice="BondedService" />
      </template>
      <template v-if="store.job?.supply.earthing === 'tt'">
        <JobField path="supply.electrode_design_ohm" label="Electrode, expected" kind="number" unit="Ω" />
        <JobField path="supply.electrode_location" label="Electrode, where" />
      </template>
    </FieldGroup>
    <BoardFields />
    <ChargePointFields />
    <template #aside>
      <ChecksLedger :stages="['survey']" title="Checks on what is there" />
    </template>
  </StageColumns>
</template>
