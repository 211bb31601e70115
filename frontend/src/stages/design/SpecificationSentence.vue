<script setup lang="ts">
// The specification sentence: plain words, and choices that open what every alternative would do.
import type { Evaluation } from '../../api/types'
import ChoiceMenu from './ChoiceMenu.vue'

defineProps<{ sentence: Evaluation['sentences'][number] }>()
defineEmits<{ route: [] }>()
</script>

<template>
  <p class="sentence">
    <template v-for="(part, index) in sentence.parts" :key="index">
      <button v-if="part.choice === 'route'" type="button" class="choice" @click="$emit('route')">
        {{ part.text }}
      </button>
      <ChoiceMenu
        v-else-if="part.choice"
        :text="part.text"
        :choice="part.choice"
        :circuit="part.circuit || sentence.circuit"
      />
      <template v-else>{{ part.text }}</template>
    </template>
  </p>
</template>

<style>
.sentence {
  font-size: 1.22rem;
  line-height: 1.75;
  max-width: 70ch;
  margin: 8px 0 26px;
}
.sentence .choice {
  font: inherit;
  font-weight: 700;
  color: inherit;
  background: linear-gradient(transparent 55%, color-mix(in srgb, var(--copper) 16%, transparent) 55%);
  border: 0;
  border-bottom: 2px solid var(--copper);
  padding: 0 3px;
  cursor: pointer;
  text-align: left;
}
.sentence .choice:hover,
.sentence .choice[aria-expanded='true'] {
  background: color-mix(in srgb, var(--copper) 22%, transparent);
}
@media (max-width: 839px) {
  .sentence {
    font-size: 1.12rem;
    line-height: 2.3;
  }
  .sentence .choice {
    line-height: 1.5;
    padding: 7px 4px;
  }
}
</style>
