<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'

const store = useJob()
const assumed = computed(() =>
  store.job!.site.hazards.some((hazard) => hazard === 'old_duct' || hazard === 'full_cavity'),
)
</script>

<template>
  <TapField path="site.hazards" label="Seen along the way" choice="Hazard" many />
  <TapField
    v-if="assumed"
    path="site.way_proven_clear"
    label="Has a draw line gone through?"
    choice="Seen"
    hint="Until it has, price for the worse case."
  />
  <JobField path="site.stride_m" label="Length of your step, where you pace" kind="number" unit="m" />
  <JobField path="site.route_notes" label="Notes on the way" kind="paragraph" />
  <p>
    The sections with their lengths are entered in
    <router-link :to="{ name: 'design' }" class="link">Design</router-link>.
  </p>
</template>
