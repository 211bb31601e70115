<script setup lang="ts">
// The simulated operator's desk, plainly marked: a place to see how an answer changes the job. No operator sees it.
import { onMounted, ref } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { DeskState, JobState } from '../../../api/types'
import { useJob } from '../../../job/useJob'

const store = useJob()
const desk = ref<DeskState>()
const failed = ref('')
const params = { path: { job_id: store.id } }

async function attempt(what: () => Promise<unknown>): Promise<void> {
  try {
    await what()
    desk.value = await answer<DeskState>(api.GET('/api/v1/jobs/{job_id}/desk', { params }))
    failed.value = ''
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
const handIn = () =>
  attempt(() =>
    store.act('the form, handed in at the stand-in desk', () =>
      answer<JobState>(api.POST('/api/v1/jobs/{job_id}/desk', { params })),
    ),
  )
const pass = (days: number) =>
  attempt(() =>
    store.act('days at the stand-in desk', () =>
      answer<JobState>(api.POST('/api/v1/jobs/{job_id}/desk/days', { params, body: { days } })),
    ),
  )
onMounted(() => attempt(async () => undefined))
</script>

<template>
  <section class="desk" aria-label="Simulated operator’s desk">
    <h3>Simulated operator’s desk <span class="mark">stand-in, no operator sees this</span></h3>
    <p class="quiet">
      Hand the form in here to see what an answer would do to the job. Its letters never count as the operator’s word.
    </p>
    <div class="buttons">
      <v-btn variant="outlined" @click="handIn">{{ desk?.today ? 'Hand in again' : 'Hand the form in' }}</v-btn>
      <template v-if="desk?.today">
        <v-btn v-for="days in [1, 7, 30]" :key="days" variant="outlined" @click="pass(days)">{{
          days === 1 ? 'A day later' : `${days} days later`
        }}</v-btn>
      </template>
    </div>
    <p v-if="desk?.today" role="status">
      There it is <b class="figure">{{ desk.today }}</b>;
      {{ desk.letters_to_come ? `letters still to come: ${desk.letters_to_come}` : 'nothing more to come' }}.
    </p>
    <p v-if="failed" role="alert" class="failed">{{ failed }}</p>
  </section>
</template>

<style scoped>
.desk {
  border: 2px dashed var(--quiet);
  border-radius: 8px;
  padding: 12px 16px;
  display: grid;
  gap: 8px;
}
.mark {
  font-weight: 400;
  font-size: 0.88rem;
  color: var(--quiet);
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
