<script setup lang="ts">
// What was kept of this step, first to last; taking it again keeps them all and asks why.
import { computed } from 'vue'

import { figureWords, readingWords } from '../../readings/readingWords'
import type { ShownStep } from '../../readings/waiting'
import { dayAndTime } from '../../shared/format'

const props = defineProps<{ step: ShownStep; typing: boolean }>()
const why = defineModel<string>({ required: true })

const earlier = computed(() =>
  props.step.earlier.map((one) => (one.value === null ? one.outcome : figureWords(one, props.step))),
)
</script>

<template>
  <div v-if="step.reading" class="taken">
    <p>
      {{ step.waits ? 'On this device, not yet saved:' : 'Kept:' }} <b class="figure">{{ readingWords(step) }}</b> by
      {{ step.reading.taken_by }}, {{ dayAndTime(step.reading.taken_at)
      }}<template v-if="step.reading.instrument">, {{ step.reading.instrument }}</template
      ><template v-if="step.reading.photo">, with a photo</template
      ><template v-if="earlier.length"
        >; before it <span class="figure">{{ earlier.join(', ') }}</span><template v-if="step.reading.again_because">
          ({{ step.reading.again_because }})</template
        ></template
      >.
    </p>
    <v-text-field v-model="why" label="Taken again because" maxlength="200" hide-details />
  </div>
</template>

<style scoped>
.taken {
  display: grid;
  gap: 8px;
  font-size: 0.95rem;
  max-width: 560px;
}
</style>
