<script setup lang="ts">
// How this job is tested: instruments, the schools where practice differs, the day's temperature, what a move takes.
import { computed } from 'vue'

import { useJob } from '../../job/useJob'
import JobField from '../../shared/fields/JobField.vue'
import TapField from '../../shared/fields/TapField.vue'
import InstrumentRegister from './InstrumentRegister.vue'

const open = defineModel<boolean>({ required: true })

const store = useJob()
const socketed = computed(() => store.job!.charge_points.some((one) => one.tethered === false))
const boxed = computed(() => store.job!.circuits.some((one) => one.boxes.length > 0))
</script>

<template>
  <v-dialog v-model="open" max-width="860" scrollable>
    <v-card class="sheet set-up">
      <div class="head">
        <h2 class="headline">How it is tested</h2>
        <v-btn variant="text" @click="open = false">Done</v-btn>
      </div>
      <InstrumentRegister />
      <TapField path="testing.loop_school" label="A loop read cold is held against" choice="LoopSchool" />
      <TapField path="testing.rcd_school" label="Each RCD gets" choice="RcdSchool" />
      <TapField v-if="boxed" path="testing.box_school" label="A cable that a box parts is tested" choice="BoxSchool" />
      <JobField
        path="testing.conductors_c"
        label="Conductors today"
        kind="number"
        unit="°C"
        hint="What R1+R2 and Zs are expected at; goes with every reading"
      />
      <JobField
        v-if="socketed"
        path="testing.test_lead_ohm"
        label="Your lead to the adapter adds"
        kind="number"
        unit="Ω"
        hint="Line and earth together, read from end to end"
      />
    </v-card>
  </v-dialog>
</template>

<style scoped>
.set-up {
  display: grid;
  gap: 16px;
  overflow-y: auto;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
</style>
