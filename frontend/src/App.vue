<script setup lang="ts">
import { useCatalogue } from './shared/useCatalogue'

const { failed, load } = useCatalogue()
void load()
</script>

<template>
  <v-app>
    <v-alert v-if="failed" type="error" :text="failed" role="alert" class="failed">
      <template #append><v-btn @click="load">Try again</v-btn></template>
    </v-alert>
    <router-view />
  </v-app>
</template>

<style scoped>
.failed {
  margin: 16px;
}
</style>
