<script setup lang="ts">
import { useCatalogue } from './useCatalogue'

const { catalogue } = useCatalogue()
</script>

<template>
  <p v-if="catalogue" class="caution" role="note">{{ catalogue.caution }}</p>
</template>

<style scoped>
.caution {
  border-left: 4px solid var(--copper);
  padding: 6px 12px;
  font-size: 0.85rem;
  color: var(--quiet);
  max-width: 70ch;
}
</style>
