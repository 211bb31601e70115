<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import LookedField from '../../../shared/fields/LookedField.vue'
import TapField from '../../../shared/fields/TapField.vue'

const store = useJob()
// Which unit is asked about, where there are several.
const several = computed(() =>
  store.job!.charge_points.length > 1 ? store.job!.charge_points[store.pointIndex]!.name : '',
)
</script>

<template>
  <TapField
    path="site.car_place"
    label="Where can a car be charged from it?"
    choice="CarPlace"
    hint="A lead that reaches outdoors counts as outdoors."
  />
  <TapField path="site.parking_on_own_land" label="Does the car stand on the dwelling’s own land?" choice="Seen" />
  <LookedField
    :path="`charge_points.${store.pointIndex}.nearby`"
    :label="several ? `What is near ${several}?` : 'What is near it?'"
    choice="Nearby"
    none="none of these"
    hint="Each of them changes what has to be done."
  />
  <JobField path="site.wanted_position" label="Where the householder wants it" kind="paragraph" />
  <JobField
    :path="`charge_points.${store.pointIndex}.connector_height_m`"
    :label="several ? `Connector above ground, ${several}` : 'Connector above ground'"
    kind="number"
    unit="m"
    class="short"
  />
</template>
