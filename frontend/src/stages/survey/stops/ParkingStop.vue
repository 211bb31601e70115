<script setup lang="ts">
import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/JobField.vue'
import TapField from '../../../shared/TapField.vue'

const store = useJob()
</script>

<template>
  <TapField path="site.car_place" label="Where can a car be charged from it?" choice="CarPlace" hint="A lead that reaches outdoors counts as outdoors." />
  <TapField path="site.parking_on_own_land" label="Does the car stand on the dwelling’s own land?" choice="Seen" />
  <JobField path="site.wanted_position" label="Where the householder wants it" kind="paragraph" />
  <JobField :path="`charge_points.${store.pointIndex}.connector_height_m`" label="Connector above ground" kind="number" unit="m" class="short" />
</template>
