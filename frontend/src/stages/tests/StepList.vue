<script setup lang="ts">
// The steps in their order, each with what was read. On a phone it folds behind the step's own heading.
import { computed, ref } from 'vue'

import type { Step } from '../../api/types'
import { readingWords } from '../../readings/words'

const props = defineProps<{ steps: Step[]; current: number; stage: 'dead' | 'live' }>()
const emit = defineEmits<{ choose: [index: number] }>()

const unfolded = ref(false)
const taken = computed(() => props.steps.filter((step) => step.reading).length)

function choose(index: number): void {
  unfolded.value = false
  emit('choose', index)
}
</script>

<template>
  <nav class="steps" :class="{ unfolded }" aria-label="Steps">
    <button type="button" class="fold link" :aria-expanded="unfolded" @click="unfolded = !unfolded">
      {{ unfolded ? 'Fold the list' : `All steps, ${taken} of ${steps.length} taken` }}
    </button>
    <ol>
      <li v-for="(step, index) in steps" :key="`${step.step}/${step.subject}`">
        <button type="button" :class="{ current: index === current, open: !step.reading }" :aria-current="index === current ? 'step' : undefined" @click="choose(index)">
          <span>{{ step.title }}</span><span class="figure">{{ readingWords(step) }}</span>
        </button>
      </li>
    </ol>
    <p v-if="stage === 'live'" class="care" role="note">Live work. Fused probes, covers back on before you walk away.</p>
    <p v-else class="care" role="note">Isolated, proved dead, locked off? Prove the tester before and after.</p>
  </nav>
</template>

<style scoped>
.steps {
  background: var(--sheet);
  border-right: 1px solid var(--line);
  padding: 14px 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li button {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  padding: 6px 18px;
  background: none;
  border: 0;
  border-left: 5px solid transparent;
  text-align: left;
  font: inherit;
  font-size: 0.95rem;
  color: inherit;
  cursor: pointer;
}
li button.open {
  color: var(--quiet);
}
li button.current {
  border-left-color: var(--copper);
  background: var(--paper);
  font-weight: 700;
  color: var(--ink);
}
.figure {
  white-space: nowrap;
  font-size: 0.88rem;
}
.care {
  margin: 16px 18px 4px;
  padding: 10px 14px;
  border-left: 4px solid var(--falls_short);
  background: color-mix(in srgb, var(--falls_short) 12%, var(--sheet));
  font-size: 0.88rem;
}
.fold {
  display: none;
}
@media (max-width: 839px) {
  .steps {
    padding: 0 14px;
    border-right: 0;
    border-bottom: 1px solid var(--line);
  }
  .fold {
    display: block;
    min-height: 44px;
  }
  ol,
  .care {
    display: none;
  }
  .unfolded ol,
  .unfolded .care {
    display: block;
  }
}
</style>
