<script setup lang="ts">
// An exercise: choose a test, set dial and leads, read, say whether it is as it should be; at last name the fault.
import { computed, onMounted, ref, watch } from 'vue'
import { useDisplay } from 'vuetify'

import SideList from '../shared/SideList.vue'
import ExerciseEnd from './ExerciseEnd.vue'
import ExerciseLog from './ExerciseLog.vue'
import HouseDrawing from './HouseDrawing.vue'
import HouseState from './HouseState.vue'
import NameFault from './NameFault.vue'
import ShownReading from './ShownReading.vue'
import StepHelp from './StepHelp.vue'
import TestSet from './TestSet.vue'
import { displayWords, keyOf } from './displayWords'
import { useExercise } from './useExercise'
import { useSetUp } from './useSetUp'

const props = defineProps<{ id: number }>()

const { state, failed, busy, load, act } = useExercise(() => props.id)
const { smAndDown } = useDisplay()
const current = ref('')
const naming = ref(false)
const steps = computed(() => state.value?.steps.filter((one) => one.kind !== 'hold') ?? [])
const step = computed(() => steps.value.find((one) => keyOf(one) === current.value))
const set = useSetUp(
  () => step.value,
  () => state.value?.links ?? [],
)
const ended = computed(() => state.value?.marks ?? null)
const latest = computed(() =>
  state.value?.entries.findLast((one) => one.title !== '' && keyOf(one.act) === current.value),
)
const displayOf = (key: string) =>
  displayWords(state.value!.entries.findLast((entry) => entry.title !== '' && keyOf(entry.act) === key))
const items = computed(() =>
  steps.value.map((one, place) => ({
    key: keyOf(one),
    title: one.title,
    figure: displayOf(keyOf(one)) || (one.required ? '' : 'extra'),
    open: displayOf(keyOf(one)) === '',
    apart: place > 0 && one.stage !== steps.value[place - 1]!.stage,
  })),
)
const dialWords = computed(() => state.value?.dials.find((one) => one.key === set.dial.value)?.words ?? 'no setting')
const together = computed(() => state.value?.dials.find((one) => one.key === set.dial.value)?.function === 'insulation')
// The drawing shows what flowed while the newest display of this test stood; the leads as they are now.
const flow = computed(() => latest.value?.flow ?? [])

onMounted(load)
watch(state, (now, before) => {
  if (now && !before) {
    document.title = `${now.title} · Practice · Fulmen`
    current.value = keyOf(steps.value[0]!)
  }
})
const take = () => act(set.taking())
</script>

<template>
  <div class="page">
    <header class="bar">
      <router-link :to="{ name: 'practice' }" class="home">Practice</router-link>
      <h1 class="title">{{ state?.title ?? 'Exercise' }}</h1>
      <p v-if="state" class="learner">{{ state.learner }}</p>
    </header>
    <main>
      <p v-if="failed" class="failed" role="alert">
        {{ failed }} <button type="button" class="link" @click="load">Look again</button>
      </p>
      <p v-if="!state" class="opening">Opening the exercise…</p>
      <div v-else class="workbench">
        <SideList
          :items="items"
          :current="current"
          label="Tests"
          :fold="step ? `Test: ${step.title}` : 'Choose a test'"
          @choose="current = $event"
        />
        <section class="middle" aria-label="The house and the set">
          <ExerciseEnd v-if="ended" :state="state" :marks="ended" />
          <HouseState v-else-if="smAndDown" :state="state" :busy="busy" @act="act" />
          <h2 class="headline">{{ step?.title ?? 'Choose a test' }}</h2>
          <HouseDrawing
            v-if="step"
            :scene="state.scene"
            :circuit="state.scene.terminals[step.subject] ? step.subject : step.circuit"
            :leads="set.leads"
            :linked="set.linkedNow.value"
            :flow="flow"
            :set-words="dialWords"
            :active="set.active.value"
            @tap="set.tap($event, together)"
          />
          <template v-if="step && !ended">
            <StepHelp :step="step" :help="state.help" @as-asked="set.asAsked" />
            <TestSet :state="state" :step="step" :set="set" :busy="busy" @take="take" />
          </template>
          <ShownReading
            v-if="latest"
            :entry="latest"
            :step="step!"
            :ended="!!ended"
            @judge="act({ kind: 'judge', step: step!.step, subject: step!.subject, right: $event })"
          />
        </section>
        <aside class="aside">
          <HouseState v-if="!ended && !smAndDown" :state="state" :busy="busy" @act="act" />
          <v-btn v-if="!ended" color="ink" block @click="naming = true">Name the fault</v-btn>
          <ExerciseLog :state="state" @choose="current = $event" />
        </aside>
        <NameFault v-model="naming" :state="state" @name="act" />
      </div>
    </main>
  </div>
</template>

<style scoped>
.bar {
  background: rgb(var(--v-theme-bar));
  color: #f5f0e8;
  display: flex;
  align-items: center;
  gap: 18px;
  padding: 0 20px;
  min-height: 46px;
}
.home {
  color: #fff;
  font-weight: 700;
  text-decoration: none;
  padding: 10px 0;
}
.title {
  color: #e6e0d2;
  font-size: 1rem;
  font-weight: 400;
  flex: 1;
  min-width: 0;
}
.opening {
  padding: 30px 24px;
}
.aside {
  padding: 16px;
  display: grid;
  gap: 14px;
  align-content: start;
}
</style>
