<script setup lang="ts">
import TapField from '../../../shared/fields/TapField.vue'
</script>

<template>
  <TapField path="site.data_looked_for" label="Did you try it where the unit goes?" choice="Seen" />
  <TapField
    path="site.data_ways"
    label="What works there"
    choice="DataWay"
    many
    hint="Thick walls and metal doors swallow Wi-Fi. Data pairs in the cable serve the next unit too."
  />
</template>
