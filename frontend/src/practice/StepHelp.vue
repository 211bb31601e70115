<script setup lang="ts">
// What is told of a test beforehand: as much as the set of exercises allows.
import { computed } from 'vue'

import type { PracticeState, Step } from '../api/types'
import { bandWords, limitWords } from '../readings/readingWords'
import { useCatalogue } from '../shared/useCatalogue'

const props = defineProps<{ step: Step; help: PracticeState['help'] }>()
defineEmits<{ asAsked: [] }>()

const { stepText } = useCatalogue()
const text = computed(() => stepText(props.step))
const expect = computed(() =>
  [bandWords(props.step) && `expect ${bandWords(props.step)}`, limitWords(props.step)].filter(Boolean).join('; '),
)
</script>

<template>
  <div class="help">
    <p v-if="help !== 'none'" class="how">{{ text?.how }} {{ step.beforehand }}</p>
    <p v-else class="how quiet">{{ text?.why }} How, with what and what to expect is yours.</p>
    <p v-if="expect" class="figure">{{ expect }}</p>
    <button
      v-if="help === 'expected' && (step.leads.length || step.adapter)"
      type="button"
      class="link"
      @click="$emit('asAsked')"
    >
      Set it as the step asks
    </button>
  </div>
</template>

<style scoped>
.help {
  display: grid;
  gap: 2px;
  max-width: 70ch;
  justify-items: start;
}
.how {
  font-size: 0.95rem;
}
</style>
