<script setup lang="ts">
// The guards of a folded run, in order: a tap tells what one opens, what it sees and what goes off with it.
import { computed, ref } from 'vue'

import type { GuardView } from '../api/types'
import { guardWords } from './figureWords'
import GuardSymbol from './GuardSymbol.vue'

const props = defineProps<{ guards: readonly GuardView[] }>()

const chosen = ref('')
const told = computed(() => props.guards.find((one) => one.field === chosen.value))
</script>

<template>
  <div class="list">
    <ol aria-label="What opens, from cut-out to charge point">
      <li v-for="guard in guards" :key="guard.field">
        <button
          type="button"
          :aria-pressed="chosen === guard.field"
          @click="chosen = chosen === guard.field ? '' : guard.field"
        >
          <svg width="26" height="26" viewBox="-13 -13 26 26" aria-hidden="true">
            <GuardSymbol :kind="guard.kind" />
          </svg>
          {{ guard.short }}
        </button>
      </li>
    </ol>
    <p v-if="told" class="told" role="status">{{ guardWords(told) }}</p>
  </div>
</template>

<style scoped>
.list {
  padding: 0 12px 6px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
button {
  display: flex;
  align-items: center;
  gap: 4px;
  min-height: 44px;
  padding: 2px 10px 2px 4px;
  border: 1px solid var(--line);
  background: var(--sheet);
  border-radius: 4px;
  font: 400 0.8rem var(--figures);
  color: var(--ink);
}
button[aria-pressed='true'] {
  border-color: var(--copper);
  box-shadow: inset 0 -3px 0 var(--copper);
}
.told {
  font-size: 0.85rem;
  padding: 8px 4px 2px;
}
</style>
