<script setup lang="ts">
// The overcurrent device on a way: its kind, rating and mark; what no table holds goes by its maker's figures.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import { POLES, VOLTS } from '../../../shared/fields/guardChoices'
import JobField from '../../../shared/fields/JobField.vue'
import { useCatalogue } from '../../../shared/useCatalogue'

const props = defineProps<{ index: number }>()

const store = useJob()
const { catalogue } = useCatalogue()
const path = computed(() => `circuits.${props.index}.device`)
const circuit = computed(() => store.job!.circuits[props.index]!)
const device = computed(() => circuit.value.device)
const breaker = computed(() => device.value.kind === 'breaker')
const byMaker = computed(() => !!store.evaluation?.asked.includes(`${path.value}.maker_zs_ohm`))
const threePhase = computed(() => store.job!.supply.phases === 3)
// A maker's figures are for one device: another kind or rating starts without them.
const starts = computed(() =>
  (['maker_zs_ohm', 'maker_opens_s', 'maker_energy_a2s'] as const)
    .filter((name) => device.value[name] !== null)
    .map((name) => ({ field: `${path.value}.${name}`, value: null })),
)
const ratings = computed(() => (catalogue.value?.ratings_a ?? []).map((value) => ({ value, words: `${value} A` })))
const CURVES = ['B', 'C', 'D'].map((value) => ({ value, words: value }))
const ICN = [6, 10, 15].map((value) => ({ value, words: `${value} kA` }))
const classes = computed(() => [
  { value: null, words: circuit.value.fitted_with_this_job ? '3, as ordered' : 'not seen yet' },
  ...[1, 2, 3].map((value) => ({ value, words: `${value}` })),
])
</script>

<template>
  <JobField :path="`${path}.kind`" label="Device" kind="choice" choice="DeviceKind" :also="starts" class="wide" />
  <JobField :path="`${path}.rating_a`" label="Rated" kind="choice" :items="ratings" :also="starts" />
  <template v-if="breaker">
    <JobField :path="`${path}.curve`" label="Curve" kind="choice" :items="CURVES" />
    <JobField :path="`${path}.breaking_capacity_ka`" label="Breaking capacity" kind="choice" :items="ICN" />
    <JobField :path="`${path}.energy_class`" label="Energy class" kind="choice" :items="classes" />
  </template>
  <JobField
    v-if="device.kind === 'moulded_case'"
    :path="`${path}.breaking_capacity_ka`"
    label="Breaking capacity"
    kind="number"
    unit="kA"
  />
  <JobField
    v-if="breaker || device.kind === 'moulded_case'"
    :path="`${path}.poles`"
    label="Poles it opens"
    kind="choice"
    :items="POLES"
  />
  <JobField v-if="threePhase" :path="`${path}.voltage_v`" label="Its voltage" kind="choice" :items="VOLTS" />
  <template v-if="byMaker">
    <JobField :path="`${path}.maker_zs_ohm`" label="Maker’s largest loop" kind="number" unit="Ω" />
    <JobField :path="`${path}.maker_opens_s`" label="It opens within" kind="number" unit="s" />
    <JobField :path="`${path}.maker_energy_a2s`" label="It lets through" kind="number" unit="A²s" />
    <JobField :path="`${path}.maker_source`" label="From which paper" class="wide" />
  </template>
</template>
