<script setup lang="ts">
// A verdict by word and shape; colour only supports it.
import { mdiAlertOctagonOutline, mdiCheck, mdiHelpCircleOutline, mdiScaleBalance } from '@mdi/js'
import { computed } from 'vue'

import type { Verdict } from '../api/types'
import { verdictWords } from './format'

const props = defineProps<{ verdict: Verdict; waitsFor?: 'fact' | 'reading' | null; said?: string }>()

const SHAPES = {
  meets: mdiCheck,
  falls_short: mdiAlertOctagonOutline,
  needs: mdiHelpCircleOutline,
  your_call: mdiScaleBalance,
}
const words = computed(() => props.said ?? verdictWords({ verdict: props.verdict, waits_for: props.waitsFor }))
</script>

<template>
  <span class="verdict" :style="{ color: `var(--${verdict})` }"
    ><svg viewBox="0 0 24 24" aria-hidden="true"><path :d="SHAPES[verdict]" fill="currentColor" /></svg
    >{{ words }}</span
  >
</template>

<style scoped>
.verdict {
  font-weight: 700;
  font-size: 0.85rem;
  white-space: nowrap;
}
svg {
  width: 16px;
  height: 16px;
  vertical-align: -3px;
  margin-right: 3px;
}
</style>
