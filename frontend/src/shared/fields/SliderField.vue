<script setup lang="ts">
// A slider with its figure beside it; a native one, so that arrow keys and assistive tools work as usual.
import { useId } from 'vue'

defineProps<{ label: string; modelValue: number; min: number; max: number; step: number; words: string }>()
defineEmits<{ 'update:modelValue': [value: number] }>()

const id = useId()
const read = (event: Event) => Number((event.target as HTMLInputElement).value)
</script>

<template>
  <div class="slider">
    <label :for="id">{{ label }}</label>
    <span class="figure said" aria-hidden="true">{{ words }}</span>
    <input
      :id="id"
      type="range"
      :min="min"
      :max="max"
      :step="step"
      :value="modelValue"
      :aria-valuetext="words"
      @input="$emit('update:modelValue', read($event))"
    />
  </div>
</template>

<style scoped>
.slider {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: baseline;
  gap: 0 10px;
}
.said {
  font-weight: 700;
}
input {
  grid-column: 1 / -1;
  width: 100%;
  height: 32px;
  margin: 0;
  accent-color: var(--copper);
}
@media (max-width: 839px) {
  input {
    height: 44px;
  }
}
</style>
