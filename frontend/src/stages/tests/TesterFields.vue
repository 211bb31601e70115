<script setup lang="ts">
// Who tests with what: kept in this browser, written into every reading.
import { usePerson } from '../../shared/usePerson'

const { name, instrument } = usePerson()
</script>

<template>
  <div class="tester">
    <v-text-field v-model="name" label="Tested by" maxlength="200" autocomplete="name" />
    <v-text-field v-model="instrument" label="Instrument and its calibration" maxlength="200" />
  </div>
</template>

<style scoped>
.tester {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 10px;
  max-width: 620px;
  margin-top: 12px;
}
</style>
