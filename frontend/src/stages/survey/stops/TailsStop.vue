<script setup lang="ts">
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import TailsDrawing from '../drawings/TailsDrawing.vue'
import { TAILS } from './items'
</script>

<template>
  <TapField
    path="supply.tails_csa_mm2"
    label="Size of the tails"
    :items="TAILS"
    hint="Read it off the sheath; don’t guess."
  />
  <JobField path="supply.tails_length_m" label="Tails, length" kind="number" unit="m" class="short" />
  <TapField path="supply.tails_sleeved" label="Marked brown and blue?" choice="Seen">
    <template #picture="{ value }"><TailsDrawing :sleeved="value === 'yes'" /></template>
  </TapField>
  <TapField path="supply.room_to_split_tails" label="Room for connector blocks to split them?" choice="Seen" />
</template>
