<script setup lang="ts">
// One instrument of the register: its number, when its calibration ends, what it can do.
import { computed } from 'vue'

import { useJob } from '../../job/useJob'
import DayField from '../../shared/fields/DayField.vue'
import JobField from '../../shared/fields/JobField.vue'
import TapField from '../../shared/fields/TapField.vue'
import AccuracyFields from './AccuracyFields.vue'

const props = defineProps<{ index: number; used: boolean }>()
defineEmits<{ takeOut: [] }>()

const store = useJob()
const at = (field: string) => `testing.instruments.${props.index}.${field}`
const name = computed(() => store.job!.testing.instruments[props.index]?.name ?? '')
</script>

<template>
  <fieldset class="instrument">
    <legend>
      {{ name }}
      <button v-if="!used" type="button" class="link" @click="$emit('takeOut')">Take it out</button>
    </legend>
    <div class="pair">
      <JobField :path="at('serial_number')" label="Serial number" />
      <DayField :path="at('calibration_due')" label="Calibration due" />
      <DayField :path="at('checked_on')" label="Last found right on" />
    </div>
    <TapField :path="at('functions')" label="It measures" choice="Function" many />
    <AccuracyFields :index="index" />
  </fieldset>
</template>

<style scoped>
.instrument {
  display: grid;
  gap: 8px;
  width: 100%;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
legend {
  font-weight: 700;
  float: left;
  width: 100%;
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 10px;
  clear: both;
}
</style>
