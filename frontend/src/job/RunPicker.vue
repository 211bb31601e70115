<script setup lang="ts">
// Which run is looked at, where a job feeds more than one charge point.
import { computed } from 'vue'

import TapGroup from '../shared/fields/TapGroup.vue'
import { useJob } from './useJob'

const store = useJob()
const answers = computed(() => store.job!.charge_points.map((one) => ({ value: one.id, words: one.name })))
const chosen = computed(() => (answers.value.find((one) => one.value === store.point) ?? answers.value[0])?.value)
</script>

<template>
  <div v-if="answers.length > 1" class="picker">
    <TapGroup label="Run to" :answers="answers" :chosen="(one) => one === chosen" @tap="store.point = $event" />
  </div>
</template>

<style scoped>
.picker {
  background: var(--sheet);
  padding: 6px 20px 0;
}
.picker :deep(legend) {
  float: left;
  padding: 10px 14px 0 0;
}
</style>
