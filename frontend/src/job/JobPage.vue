<script setup lang="ts">
// A job: its bar with the stages, the run band above every stage, and the stage itself.
import { computed, defineAsyncComponent, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import { asProblem } from '../api/client'
import { watchStandingReasons } from '../checks/useStandingReasons'
import type { Entry } from '../device/entries'
import RefusedEntries from '../device/RefusedEntries.vue'
import { figureWords } from '../readings/readingWords'
import RunBand from '../run/RunBand.vue'
import RunStrip from '../run/RunStrip.vue'
import CautionNote from '../shared/CautionNote.vue'
import HeldFields from './HeldFields.vue'
import NextLine from './NextLine.vue'
import RunPicker from './RunPicker.vue'
import SaveNote from './SaveNote.vue'
import { STAGE_WORDS } from './stages'
import StageTabs from './StageTabs.vue'
import UndoBar from './UndoBar.vue'
import UndoButtons from './UndoButtons.vue'
import { useAlongTheRun } from './useAlongTheRun'
import { useJob } from './useJob'
import { useNext } from './useNext'
import { useUnfolded } from './useUnfolded'

// Rarely needed, so fetched when it is.
const ConflictDialog = defineAsyncComponent(() => import('./ConflictDialog.vue'))

const props = defineProps<{ id: number }>()

const store = useJob()
const route = useRoute()
const failed = ref('')
// Where on the run the stage is at; a stage that is at no place says nothing.
const at = ref('')
watch(
  () => route.name,
  () => (at.value = ''),
)
const profile = computed(() => store.profile)
const { told, leftOf, leftAt } = useNext()
const along = computed(() => ({
  guards: store.guards?.guards ?? [],
  left: (nodes: readonly string[]) => leftAt(nodes, [String(route.name)]),
}))
const { unfolded, wide, toggle } = useUnfolded(() => profile.value !== undefined)
const { go } = useAlongTheRun()

async function load(): Promise<void> {
  failed.value = ''
  try {
    await store.load(props.id)
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
// The window's title tells two open jobs apart, and two stages of one.
watch(
  () => [STAGE_WORDS[route.name as keyof typeof STAGE_WORDS], store.job?.title, 'Fulmen'],
  (parts) => (document.title = parts.filter(Boolean).join(' · ')),
  { immediate: true },
)
/** What a waiting entry is, in the words of its step. */
function entryName({ reading, photo }: Entry): string {
  const step = store.toldSteps?.find((one) => one.step === reading?.step && one.subject === reading.subject)
  if (!reading || !step) return photo ? `the photo ${photo.name}` : 'a reading'
  return reading.value === null ? step.title : `${step.title}, ${figureWords(reading, step)}`
}
watchStandingReasons()
watch(() => props.id, load, { immediate: true })
onBeforeUnmount(() => {
  store.rememberDone()
  void store.flush()
})
</script>

<template>
  <div class="page">
    <header class="bar">
      <router-link to="/" class="home">Fulmen</router-link>
      <h1 class="title">{{ store.job?.title ?? 'Job' }}</h1>
      <SaveNote />
      <UndoButtons v-if="store.job" />
      <StageTabs v-if="!failed" :id="id" :left="told && leftOf" />
    </header>
    <main>
      <div v-if="failed" class="failed">
        <h2 class="headline">This job can't be shown</h2>
        <p>{{ failed }}</p>
        <p class="ways">
          <v-btn color="ink" @click="load">Try again</v-btn>
          <router-link to="/" class="link">All jobs</router-link>
        </p>
      </div>
      <template v-else-if="store.job && store.evaluation">
        <p v-if="store.saveState === 'refused'" class="refused" role="alert">
          {{ store.problem?.detail }} <button type="button" class="link" @click="store.takeBack()">Take it back</button>
        </p>
        <HeldFields />
        <RefusedEntries :job="id" :names="entryName" />
        <p v-if="store.cleaned.length" class="refused" role="note">
          An older version stored here what can't be shown; it was cleaned: {{ store.cleaned.join(', ') }}.
        </p>
        <RunPicker />
        <RunBand v-if="profile && unfolded && wide" v-bind="along" :profile="profile" @go="go" @fold="toggle" />
        <RunStrip
          v-else
          v-bind="along"
          :job="store.job"
          :profile="profile"
          :point="store.point"
          :at="at"
          :unfolded="unfolded"
          @go="go"
          @unfold="toggle"
        />
        <NextLine :id="id" :told="told" :hold="store.evaluation.operator.hold && route.params.part !== 'operator'" />
        <RunBand v-if="profile && unfolded && !wide" v-bind="along" :profile="profile" @go="go" />
        <router-view v-slot="{ Component }"><component :is="Component" @at="at = $event" /></router-view>
        <footer><CautionNote /></footer>
      </template>
      <p v-else class="no-run">Opening the job…</p>
    </main>
    <UndoBar />
    <ConflictDialog v-if="store.conflict" />
  </div>
</template>

<style scoped>
.bar {
  background: rgb(var(--v-theme-bar));
  color: #f5f0e8;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  column-gap: 18px;
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
  flex: 0 1 auto;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: #e6e0d2;
  font-size: 1rem;
  font-weight: 400;
}
.refused {
  padding: 8px 20px;
  background: var(--sheet);
  border-bottom: 3px solid var(--falls_short);
}
.no-run,
.failed {
  padding: 28px 20px;
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
  color: var(--quiet);
}
.failed {
  display: grid;
  gap: 12px;
  color: var(--ink);
}
.ways {
  display: flex;
  gap: 20px;
  align-items: center;
}
footer {
  padding: 20px;
}
@media (max-width: 839px) {
  .bar {
    padding: 0 14px;
    column-gap: 12px;
  }
  .title {
    flex: 1 1 0;
  }
}
</style>
