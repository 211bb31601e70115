<script setup lang="ts">
// What each of the firm's instruments has read since it was last found right, and where two read the same thing.
import { ref } from 'vue'

import { answer, api, asProblem } from '../../api/client'
import type { InUse } from '../../api/types'

const found = ref<InUse[]>()
const failed = ref('')

async function look(): Promise<void> {
  failed.value = ''
  try {
    found.value = (await answer<{ instruments: InUse[] }>(api.GET('/api/v1/instruments/in-use'))).instruments
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
const sinceWords = (one: InUse) => (one.since ? `since ${one.since}` : 'in all: no check is written down')
</script>

<template>
  <div class="in-use">
    <v-btn variant="text" @click="look">What each has read</v-btn>
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
    <p v-if="found && !found.length" class="quiet">The firm has none yet: offer one of these to every job first.</p>
    <section v-for="one in found" :key="one.name" :aria-label="one.name">
      <h4>{{ one.name }}</h4>
      <p>
        <span class="figure">{{ one.count }}</span> figures {{ sinceWords(one)
        }}<template v-if="one.due">, due {{ one.due }}</template
        >.
      </p>
      <ul v-if="one.jobs.length">
        <li v-for="job in one.jobs" :key="job.job_id">
          <RouterLink :to="`/jobs/${job.job_id}/live`">{{ job.title }}</RouterLink>,
          <span class="figure">{{ job.count }}</span> to {{ job.last }}
        </li>
      </ul>
      <ul v-if="one.against.length">
        <li v-for="(pair, at) in one.against" :key="at">
          {{ pair.what }}, {{ pair.title }}: <span class="figure">{{ pair.value }}</span> beside
          <span class="figure">{{ pair.other_value }}</span> {{ pair.unit }} by {{ pair.other }}:
          <b>{{ pair.within ? 'as near as both read' : 'further apart than both may be off' }}</b>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.in-use {
  width: 100%;
}
h4 {
  margin: 8px 0 0;
}
ul {
  margin: 4px 0;
  padding-left: 20px;
}
</style>
