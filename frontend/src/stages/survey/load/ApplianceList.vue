<script setup lang="ts">
// Appliances and circuits of the house.
import ApplianceRows from '../../../shared/fields/ApplianceRows.vue'

defineProps<{ counted: boolean }>()
</script>

<template>
  <section aria-label="Appliances and circuits">
    <h3>
      Appliances and circuits
      <span class="quiet">{{ counted ? '' : 'for the simulated day; they are not counted here' }}</span>
    </h3>
    <ApplianceRows path="load.appliances" add="Add one" empty="None yet. Pick each circuit and each big appliance." />
  </section>
</template>

<style scoped>
h3 {
  font-size: 1rem;
  padding-bottom: 6px;
}
h3 .quiet {
  font-weight: 400;
  font-size: 0.88rem;
}
</style>
