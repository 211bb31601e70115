<script setup lang="ts">
// One choice of the sentence. Opening it asks the core what every alternative would do; refused ones say why not.
import { ref } from 'vue'
import { useDisplay } from 'vuetify'

import type { Alternative, ChoiceKey } from '../../api/types'
import { useJob } from '../../job/useJob'
import LookingNote from '../../shared/LookingNote.vue'
import { useLooking } from '../../shared/useLooking'
import VerdictMark from '../../shared/VerdictMark.vue'

const props = defineProps<{ text: string; choice: ChoiceKey; circuit: string }>()

const TITLES: Record<string, string> = {
  car_earth: 'Earth of the car',
  open_pen: 'Broken-PEN protection',
  rcd: 'RCD at the board',
  rdc_dd: '6 mA DC detection',
  surge: 'Surge protection',
  device: 'Device at the board',
  csa: 'Size of the cable',
  cable: 'Kind of cable',
}
const store = useJob()
const open = ref(false)
const { soFar, found: alternatives, failed, busy, look, stop, end } = useLooking('/api/v1/alternatives')

/** What is chosen is read against its sentence: the list opens below the whole of it; on a phone, where a sentence is
 * as long as the screen, below its own words. Where there is no room there, the page moves and not the list. */
const { width } = useDisplay()
const above = ref<HTMLElement>()
function makeRoom(event: MouseEvent): void {
  const button = event.currentTarget as HTMLElement
  above.value = width.value < 840 ? button : (button.closest<HTMLElement>('.sentence') ?? button)
  const room = window.innerHeight - above.value.getBoundingClientRect().bottom
  if (room < window.innerHeight * 0.66) above.value.scrollIntoView({ block: 'start', behavior: 'instant' })
}
function ask(now: boolean): void {
  if (now) void look({ job: store.judged!, circuit: props.circuit, choice: props.choice })
  else end()
}
function choose(alternative: Alternative): void {
  open.value = false
  if (!alternative.chosen) store.changeAll(alternative.changes, alternative.label)
}
</script>

<template>
  <v-menu v-model="open" :max-width="620" :target="above" location="bottom start" @update:model-value="ask">
    <template #activator="{ props: activator }">
      <button type="button" class="choice" v-bind="activator" @click="makeRoom">
        {{ text }}<span aria-hidden="true" class="mark"> ▾</span>
      </button>
    </template>
    <v-sheet border rounded class="sheet" role="group" :aria-label="TITLES[choice]">
      <h2>{{ TITLES[choice] }}</h2>
      <p v-if="failed" role="alert">{{ failed }}</p>
      <LookingNote :so-far="soFar" :busy="busy" :some="!!alternatives?.length" @stop="stop" />
      <button
        v-for="one in alternatives"
        :key="one.label"
        type="button"
        class="way"
        :class="{ chosen: one.chosen }"
        :aria-pressed="one.chosen"
        @click="choose(one)"
      >
        <span class="head"
          ><b>{{ one.label }}</b
          ><span v-if="one.chosen" class="now">as it stands</span><VerdictMark :verdict="one.verdict"
        /></span>
        <span v-if="one.why_not" class="quiet"
          ><b>Why not:</b> {{ one.why_not }} <i>{{ one.fear }}</i><span class="clause">{{ one.clause }}</span></span
        >
        <span v-else-if="one.consequence" class="quiet">{{ one.consequence }}</span>
      </button>
    </v-sheet>
  </v-menu>
</template>

<style scoped>
.mark {
  color: var(--copper);
  font-size: 0.75em;
}
.choice {
  scroll-margin-top: 25vh;
}
.sheet {
  max-height: 60vh;
  overflow: auto;
  padding: 12px 0;
}
h2,
p {
  padding: 0 16px 8px;
}
.way {
  display: grid;
  gap: 2px;
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  border-top: 1px solid var(--line);
  border-left: 4px solid transparent;
  padding: 9px 16px 9px 12px;
  min-height: 44px;
  font: inherit;
  color: inherit;
  cursor: pointer;
}
.way:hover,
.way:focus-visible {
  background: var(--paper);
}
.way.chosen {
  border-left-color: var(--copper);
}
.clause {
  display: block;
  font-size: 0.82rem;
}
.head {
  display: flex;
  gap: 12px;
  align-items: baseline;
}
.head b {
  flex: 1;
}
.now,
.way .quiet {
  font-size: 0.86rem;
}
</style>
