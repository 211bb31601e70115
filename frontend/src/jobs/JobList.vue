<script setup lang="ts">
// All jobs: search, open, start from a blank sheet, bring in a job file.
import { mdiMagnify } from '@mdi/js'
import { useIntervalFn } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { answer, api, asProblem } from '../api/client'
import type { JobState, JobSummary } from '../api/types'
import { unsavedJobs } from '../device/drafts'
import { useOutbox } from '../device/outbox'
import CautionNote from '../shared/CautionNote.vue'
import ImportButton from './ImportButton.vue'
import JobRow from './JobRow.vue'

const PAGE = 50
/** A page that was just left may still be saving. */
const LOOK_MS = 2000
const router = useRouter()
const jobs = ref<JobSummary[]>([])
const total = ref(0)
const search = ref('')
const title = ref('')
// A list that comes says nothing of a file that was refused or a job that could not be started: each has its sentence.
const notListed = ref('')
const refused = ref('')
const loaded = ref(false)
let asked = 0
// What waits on this device; a draft goes out once its job is opened.
const { waiting, refused: notTaken } = useOutbox()
const drafts = ref<number[]>([])
useIntervalFn(async () => (drafts.value = await unsavedJobs()), LOOK_MS)
const unsaved = computed(() => [
  ...new Set([...drafts.value, ...[...waiting.value, ...notTaken.value].map((one) => one.job)]),
])

async function list(offset = 0): Promise<void> {
  const turn = ++asked
  try {
    const query = { search: search.value, limit: PAGE, offset }
    const page = await answer<{ jobs: JobSummary[]; total: number }>(api.GET('/api/v1/jobs', { params: { query } }))
    if (turn !== asked) return
    jobs.value = offset ? [...jobs.value, ...page.jobs] : page.jobs
    total.value = page.total
    notListed.value = ''
    loaded.value = true
  } catch (error) {
    notListed.value = asProblem(error).detail
  }
}

async function start(): Promise<void> {
  try {
    const body = { title: title.value, reference: '' }
    const state = await answer<JobState>(api.POST('/api/v1/jobs/blank', { body }))
    await router.push({ name: 'survey', params: { id: state.id } })
  } catch (error) {
    refused.value = asProblem(error).detail
  }
}

onMounted(() => {
  document.title = 'Jobs · Fulmen'
  void list()
})
watch(search, () => void list())
</script>

<template>
  <header class="bar">
    <p class="home">Fulmen</p>
    <p class="what">Home charge point circuits, from the supply to the certificate</p>
    <router-link :to="{ name: 'genuine' }" class="practice">Is it genuine?</router-link>
    <router-link :to="{ name: 'practice' }" class="practice">Practice</router-link>
  </header>
  <main>
    <div class="tools">
      <h1>Jobs</h1>
      <v-text-field
        v-model="search"
        label="Search title, name, address"
        :prepend-inner-icon="mdiMagnify"
        clearable
        class="search"
        @click:clear="search = ''"
      />
      <form class="start" @submit.prevent="start">
        <v-text-field v-model="title" label="Name a new job" maxlength="120" />
        <v-btn type="submit" color="ink" :disabled="!title.trim()">Start</v-btn>
      </form>
      <ImportButton @failed="refused = $event" />
    </div>
    <p v-if="refused" class="failed" role="alert">{{ refused }}</p>
    <p v-if="notListed" class="failed" role="alert">
      {{ notListed }} <button type="button" class="link" @click="list()">Try again</button>
    </p>
    <p v-for="id in unsaved" :key="id" class="unsaved" role="status">
      On this device, not yet saved:
      <router-link :to="{ name: 'survey', params: { id } }" class="link">{{
        jobs.find((one) => one.id === id)?.title ?? `job ${id}`
      }}</router-link>
    </p>
    <ul v-if="jobs.length">
      <JobRow v-for="job in jobs" :key="job.id" :job="job" />
    </ul>
    <p v-else-if="loaded" class="empty">
      {{ search ? 'No job matches. Try fewer letters.' : 'No jobs yet. Name one above, or bring in a job file.' }}
    </p>
    <button v-if="jobs.length < total" type="button" class="link more" @click="list(jobs.length)">
      Show more ({{ jobs.length }} of {{ total }})
    </button>
    <footer><CautionNote /></footer>
  </main>
</template>

<style scoped>
.bar {
  background: rgb(var(--v-theme-bar));
  color: #e6e0d2;
  display: flex;
  gap: 18px;
  align-items: center;
  min-height: 46px;
  padding: 6px 24px;
}
.home {
  font-weight: 700;
  color: #fff;
}
.what {
  flex: 1;
}
.practice {
  color: #fff;
  padding: 10px 0;
}
main {
  width: 100%;
  max-width: 1180px;
  margin: 0 auto;
  padding: 24px;
}
.tools {
  display: grid;
  grid-template-columns: auto minmax(180px, 1fr) minmax(240px, 1fr) auto;
  gap: 16px;
  align-items: center;
  margin-bottom: 18px;
}
.start {
  display: flex;
  gap: 8px;
  align-items: center;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--sheet);
}
.failed {
  border-left: 4px solid var(--falls_short);
  background: var(--sheet);
  padding: 10px 14px;
  margin-bottom: 14px;
}
.unsaved {
  padding: 10px 14px;
  border-left: 4px solid var(--needs);
  background: var(--sheet);
}
.empty {
  padding: 40px 0;
  color: var(--quiet);
}
footer,
.more {
  margin-top: 20px;
}
@media (max-width: 839px) {
  main {
    padding: 16px 14px;
  }
  .tools {
    grid-template-columns: 1fr;
    gap: 12px;
  }
}
</style>
