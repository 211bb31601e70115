<script setup lang="ts">
// The working as the core built it: symbol = formula = figures = result, and the table used.
import type { WorkingLine } from '../api/types'

defineProps<{ lines: WorkingLine[] }>()

const text = (line: WorkingLine) =>
  [
    line.formula,
    line.figures,
    line.value === null ? '' : `${line.value.toFixed(line.decimals)} ${line.unit}`.trim(),
  ].filter(Boolean)
</script>

<template>
  <ol v-if="lines.length" class="figure">
    <li v-for="(line, index) in lines" :key="index">
      <span class="symbol">{{ line.symbol }}</span>
      <span
        ><template v-for="(part, place) in text(line)" :key="place"><br v-if="place" />= {{ part }}</template
        ><span v-if="line.source" class="quiet source">{{ line.source }}</span></span
      >
    </li>
  </ol>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 0.84rem;
  line-height: 1.5;
}
li {
  display: grid;
  grid-template-columns: minmax(3.4em, auto) 1fr;
  gap: 6px;
  overflow-wrap: anywhere;
}
.source {
  display: block;
  font-family: var(--text);
  font-size: 0.8rem;
}
</style>
