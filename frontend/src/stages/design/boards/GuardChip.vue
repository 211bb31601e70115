<script setup lang="ts">
// A guard as it stands in the tree: its symbol and its caption; pressing it opens its facts.
import GuardSymbol from '../../../run/GuardSymbol.vue'

defineProps<{ kind: string; words: string; open?: boolean }>()
defineEmits<{ press: [] }>()
</script>

<template>
  <button type="button" class="chip" :aria-expanded="open" @click="$emit('press')">
    <svg width="26" height="26" viewBox="-13 -13 26 26" aria-hidden="true"><GuardSymbol :kind="kind" /></svg>
    {{ words }}
  </button>
</template>

<style scoped>
.chip {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  min-height: 44px;
  padding: 2px 12px 2px 6px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--paper);
  color: var(--ink);
  font: 400 0.85rem var(--figures);
  text-align: left;
}
.chip:hover {
  border-color: var(--copper);
}
.chip[aria-expanded='true'] {
  border-color: var(--copper);
  box-shadow: inset 0 -3px 0 var(--copper);
}
</style>
