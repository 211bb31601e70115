<script setup lang="ts">
// The practice desk: who practises, the sets easy ones first, and what became of the exercises so far.
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { answer, api } from '../api/client'
import type { PracticeDesk, PracticeLink, PracticeState } from '../api/types'
import CautionNote from '../shared/CautionNote.vue'
import { usePerson } from '../shared/usePerson'
import MakeExercise from './MakeExercise.vue'
import ResultList from './ResultList.vue'
import { useTold } from './useTold'

const GRADES = ['', 'First', 'Then', 'Last']
const DRAWN = ['', 'an easy one', 'a harder one', 'a quiet one']
const route = useRoute()
const router = useRouter()
const { name } = usePerson()
const desk = ref<PracticeDesk>()
const { failed, told } = useTold()
const busy = ref(false)
let asked = 0
// On a job of one's own: from that job's tests.
const job = computed(() => (route.query.job ? Number(route.query.job) : null))
const chargePoint = computed(() => (route.query.point ? String(route.query.point) : null))
// An exercise that somebody made for others: all that is told of it is whose house it is in.
const link = computed(() => (route.query.link ? String(route.query.link) : ''))
const linked = ref<PracticeLink>()
const grades = computed(() => [...new Set(desk.value?.sets.map((one) => one.grade))])
const named = computed(() => name.value.trim().length > 1)
const solved = (key: string) =>
  desk.value!.results.filter((one) => one.practice_set === key && one.total !== null).length

async function list(): Promise<void> {
  const turn = ++asked
  const query = { learner: name.value.trim() }
  const found = await told(() => answer<PracticeDesk>(api.GET('/api/v1/practice', { params: { query } })))
  // Asked at every letter of the name: only the answer to the whole of it counts.
  if (found && turn === asked) desk.value = found
}
type Which =
  { practice_set: string } | { grade: number } | { link: string } | { job_id: number; charge_point: string | null }
async function begin(which: Which): Promise<void> {
  busy.value = true
  const body = { learner: name.value.trim(), ...which }
  const begun = await told(() => answer<PracticeState>(api.POST('/api/v1/practice', { body })))
  busy.value = false
  if (begun) await router.push({ name: 'exercise', params: { id: begun.id } })
}
onMounted(() => {
  document.title = 'Practice · Fulmen'
  void list()
  void openLink()
})
async function openLink(): Promise<void> {
  if (!link.value) return
  const params = { path: { link: link.value } }
  linked.value = await told(() => answer<PracticeLink>(api.GET('/api/v1/practice/links/{link}', { params })))
}
watch(name, () => void list())
</script>

<template>
  <header class="bar">
    <router-link to="/" class="home">Fulmen</router-link>
    <p>A house in a box, with something hidden in it</p>
  </header>
  <main>
    <div class="head">
      <h1>Practice</h1>
      <v-text-field v-model="name" label="Your name, for the results" maxlength="200" autocomplete="name" class="who" />
    </div>
    <p v-if="failed" class="failed" role="alert">
      {{ failed }} <button type="button" class="link" @click="list()">Try again</button>
    </p>
    <p v-if="!named" class="quiet">Enter your name: the results are kept under it.</p>
    <section v-if="linked" class="own">
      <h2 class="headline">{{ linked.title }}</h2>
      <p>Somebody made this exercise for you: something is wrong with this house, or nothing is.</p>
      <v-btn color="ink" :disabled="!named || busy" @click="begin({ link })">Begin this exercise</v-btn>
    </section>
    <section v-if="job !== null" class="own">
      <h2 class="headline">Your own job</h2>
      <p>Something is wrong with it that its design does not show, or nothing is. Its readings stay as they are.</p>
      <v-btn color="ink" :disabled="!named || busy" @click="begin({ job_id: job, charge_point: chargePoint })"
        >Begin on this job</v-btn
      >
      <MakeExercise v-if="named" :job="job" :charge-point="chargePoint" :by="name.trim()" />
    </section>
    <p v-if="desk" class="draw">
      Draw one of any set:
      <v-btn
        v-for="grade in grades"
        :key="grade"
        variant="outlined"
        :disabled="!named || busy"
        @click="begin({ grade })"
        >{{ DRAWN[grade] }}</v-btn
      >
    </p>
    <ul v-if="desk" class="sets">
      <li v-for="one in desk.sets" :key="one.key">
        <p class="grade">{{ GRADES[one.grade] }}</p>
        <div>
          <h2 class="title">{{ one.title }}</h2>
          <p>{{ one.about }}</p>
        </div>
        <p class="count">
          <b class="figure">{{ solved(one.key) }}</b> done, <span class="figure">{{ one.count }}</span> in the set
        </p>
        <v-btn
          color="ink"
          :disabled="!named || busy"
          :aria-label="`Begin: ${one.title}`"
          @click="begin({ practice_set: one.key })"
          >Begin</v-btn
        >
      </li>
    </ul>
    <ResultList v-if="desk && named" :desk="desk" :learner="name.trim()" />
    <footer><CautionNote /></footer>
  </main>
</template>

<style scoped src="./practice-page.css" />
