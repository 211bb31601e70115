<script setup lang="ts">
// The charge point by the facts that matter electrically.
import { useJob } from '../../job/useJob'
import FieldGroup from '../../shared/FieldGroup.vue'
import JobField from '../../shared/JobField.vue'
import OpenPenFields from '../../shared/OpenPenFields.vue'
import { rcd, rcdWords } from '../../shared/rcds'

const store = useJob()
const CURRENTS = [16, 20, 25, 32].map((value) => ({ value, words: `${value} A` }))
const RCDS = [
  { value: null, words: 'none' },
  ...[rcd('A'), rcd('F'), rcd('B'), rcd('AC')].map((value) => ({ value, words: rcdWords(value) })),
]
const TETHERED = [
  { value: true, words: 'tethered' },
  { value: false, words: 'socket' },
]
const IP = ['IP24', 'IP44', 'IP54', 'IP55', 'IP65', 'IP66'].map((value) => ({ value, words: value }))
</script>

<template>
  <FieldGroup v-if="store.job?.charge_points.length" title="Charge point">
    <JobField path="charge_points.0.max_current_a" label="Most it can take" kind="choice" :items="CURRENTS" />
    <JobField path="charge_points.0.set_current_a" label="Set to, if turned down" kind="number" unit="A" />
    <JobField path="charge_points.0.open_pen_inside" label="Open-PEN device inside" kind="choice" choice="Seen" />
    <OpenPenFields v-if="store.job.charge_points[0]!.open_pen_inside === 'yes'" path="charge_points.0.open_pen_device" />
    <JobField path="charge_points.0.rdc_dd_inside" label="6 mA DC detection inside" kind="choice" choice="Seen" />
    <JobField path="charge_points.0.rcd_inside" label="RCD inside" kind="choice" :items="RCDS" />
    <JobField path="charge_points.0.device_min_a" label="Maker's device, from" kind="number" unit="A" />
    <JobField path="charge_points.0.device_max_a" label="Maker's device, to" kind="number" unit="A" />
    <JobField path="charge_points.0.ip_code" label="IP code" kind="choice" :items="IP" />
    <JobField path="charge_points.0.connector_height_m" label="Connector above ground" kind="number" unit="m" />
    <JobField path="charge_points.0.tethered" label="Lead" kind="choice" :items="TETHERED" />
    <JobField path="charge_points.0.serial_number" label="Serial number" />
  </FieldGroup>
</template>
