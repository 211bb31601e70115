<script setup lang="ts">
// What else bears on one section: heat, company, insulation, soil, depth.
import type { Section } from '../../api/types'
import JobField from '../../shared/JobField.vue'

defineProps<{ path: string; section: Section }>()

const YES_NO = [
  { value: true, words: 'yes' },
  { value: false, words: 'no' },
]
const GROUP = Array.from({ length: 9 }, (_, index) => ({ value: index + 1, words: index ? `${index + 1} circuits` : 'alone' }))
</script>

<template>
  <div class="details">
    <JobField :path="`${path}.temperature_c`" :label="section.method === 'D' ? 'Ground (else 20)' : 'Air around it (else 30)'" kind="number" unit="°C" />
    <JobField :path="`${path}.grouped_circuits`" label="Grouped with" kind="choice" :items="GROUP" />
    <template v-if="section.method === 'D'">
      <JobField :path="`${path}.depth_m`" label="Depth" kind="number" unit="m" />
      <JobField :path="`${path}.soil_km_per_w`" label="Soil resistivity" kind="number" unit="K·m/W" />
      <JobField :path="`${path}.in_duct`" label="In a duct" kind="choice" :items="YES_NO" />
    </template>
    <template v-else>
      <JobField v-if="section.grouped_circuits > 1" :path="`${path}.single_layer`" label="Side by side, not bunched" kind="choice" :items="YES_NO" />
      <JobField :path="`${path}.insulation_mm`" label="Wholly in insulation for" kind="number" unit="mm" />
      <JobField :path="`${path}.concealed_under_50_mm`" label="Hidden under 50 mm deep" kind="choice" :items="YES_NO" />
    </template>
  </div>
</template>

<style scoped>
.details {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 10px;
  padding: 8px 0;
}
</style>
