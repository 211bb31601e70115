<script setup lang="ts">
// What would mend a check that falls short: worked out on the whole job, applied with one press, undone with one.
import { ref } from 'vue'

import { answer, api, asProblem } from '../api/client'
import type { Finding, Remedy } from '../api/types'
import { useJob } from '../job/useJob'

const props = defineProps<{ finding: Finding }>()

const store = useJob()
const remedies = ref<Remedy[]>()
const failed = ref('')
const busy = ref(false)
const stopped = ref(false)

async function ask(): Promise<void> {
  failed.value = ''
  busy.value = true
  try {
    const body = { job: store.judged!, finding: props.finding.key }
    const found = await answer<{ remedies: Remedy[]; stopped: boolean }>(api.POST('/api/v1/remedies', { body }))
    remedies.value = found.remedies
    stopped.value = found.stopped
  } catch (error) {
    failed.value = asProblem(error).detail
  }
  busy.value = false
}
</script>

<template>
  <div class="remedies">
    <p v-if="failed" role="alert">{{ failed }}</p>
    <button v-if="!remedies" type="button" class="link" :disabled="busy" @click="ask">
      {{ busy ? 'Trying changes…' : 'What would mend it?' }}
    </button>
    <p v-if="stopped" class="quiet" role="note">Not every change was tried: the time for it ran out.</p>
    <p v-if="remedies && !remedies.length && !stopped" class="quiet">
      No single change, nor two together, mends it. Look at Other ways.
    </p>
    <ul v-if="remedies?.length">
      <li v-for="one in remedies" :key="one.words">
        <span
          ><b>{{ one.words }}</b>
          <span class="quiet"
            >{{ one.figures }}<template v-if="one.verdict === 'your_call'"> · your call, say why</template
            ><template v-if="one.also.length"> · opens: {{ one.also.join(', ') }}</template></span
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
