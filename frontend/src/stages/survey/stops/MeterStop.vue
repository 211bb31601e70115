<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import MeterDrawing from '../drawings/MeterDrawing.vue'
import SourceRows from './SourceRows.vue'

const store = useJob()
const supply = computed(() => store.job!.supply)
</script>

<template>
  <TapField path="supply.meter" label="What kind of meter?" choice="MeterKind">
    <template #picture="{ value }"><MeterDrawing :kind="value" /></template>
  </TapField>
  <TapField
    path="supply.isolator"
    label="An isolator between meter and board?"
    choice="Seen"
    hint="Without one: how will the tails be made dead, and by whom?"
  />
  <TapField path="supply.own_generation" label="Solar panels or a battery?" choice="Seen" />
  <SourceRows v-if="supply.own_generation === 'yes'" />
  <JobField path="supply.supply_number" label="Supply number, from bill or meter" />
</template>
