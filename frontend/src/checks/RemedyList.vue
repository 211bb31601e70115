<script setup lang="ts">
// What would mend a check that falls short: worked out on the whole job, applied with one press, undone with one.
import { computed } from 'vue'

import type { Finding } from '../api/types'
import { useJob } from '../job/useJob'
import { afterRemedy } from '../shared/format'
import LookingNote from '../shared/LookingNote.vue'
import { useLooking } from '../shared/useLooking'

const props = defineProps<{ finding: Finding }>()

const store = useJob()
const { soFar, found, failed, busy, finished, stale, look, stop } = useLooking('/api/v1/remedies')
// What would have mended another job is no answer any more.
const remedies = computed(() => (stale.value ? undefined : found.value))
const ask = () => look({ job: store.judged!, finding: props.finding.key })
</script>

<template>
  <div class="remedies">
    <p v-if="failed" role="alert">{{ failed }}</p>
    <button v-if="!remedies && !(busy && !stale)" type="button" class="link" @click="ask">What would mend it?</button>
    <LookingNote v-if="!stale" :so-far="soFar" :busy="busy" :some="!!remedies?.length" @stop="stop" />
    <p v-if="finished && remedies && !remedies.length" class="quiet">
      No single change, nor two together, mends it. Look at Other ways.
    </p>
    <ul v-if="remedies?.length">
      <li v-for="one in remedies" :key="one.words">
        <span
          ><b>{{ one.words }}</b>
          <span class="quiet"
            >{{ one.figures }}{{ afterRemedy(one.verdict)
            }}<template v-if="one.also.length"> · opens: {{ one.also.join(', ') }}</template></span
          ></span
        >
        <v-btn
          variant="outlined"
          size="small"
          :aria-label="`Apply: ${one.words}`"
          @click="store.apply(one.words, one.changes)"
          >Apply</v-btn
        >
      </li>
    </ul>
  </div>
</template>

<style scoped>
.remedies {
  font-size: 0.9rem;
  padding-bottom: 6px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
  padding: 4px 0;
}
li b::first-letter {
  text-transform: uppercase;
}
</style>
