<script setup lang="ts">
defineProps<{ title: string }>()
</script>

<template>
  <fieldset>
    <legend>{{ title }}</legend>
    <div class="fields"><slot /></div>
  </fieldset>
</template>

<style scoped>
fieldset {
  margin-bottom: 22px;
}
legend {
  font-weight: 700;
  color: var(--quiet);
  padding-bottom: 10px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 230px), 1fr));
  gap: 14px;
}
.fields > :slotted(.wide) {
  grid-column: 1 / -1;
}
</style>
