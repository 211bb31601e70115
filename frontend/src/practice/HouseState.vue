<script setup lang="ts">
// How the house stands: main switch, unit, covers, links, and the holds.
import { computed } from 'vue'

import type { PracticeAct, PracticeState } from '../api/types'

const props = defineProps<{ state: PracticeState; busy: boolean }>()
const emit = defineEmits<{ act: [act: PracticeAct] }>()

const LINKED = { none: '', line_earth: 'Line to earth', line_neutral: 'Line to neutral' }
const unsigned = computed(() => props.state.boxes.filter((one) => !one.made_up))
const isolate = () => emit('act', { kind: 'sign', step: 'isolated', subject: 'origin' })
const energise = () => emit('act', { kind: 'sign', step: 'safe_to_energise', subject: 'origin' })
const main = computed(() => (props.state.main_on ? 'on: every circuit is live' : 'off'))
const unit = computed(() => (props.state.connected ? 'connected' : 'not connected: the cable’s end is open'))
</script>

<template>
  <section class="house" aria-labelledby="house-title">
    <h2 id="house-title">The house</h2>
    <dl>
      <dt>Main switch</dt>
      <dd :class="{ live: state.main_on }">{{ main }}</dd>
      <dt>Unit</dt>
      <dd>{{ unit }}</dd>
      <template v-for="one in state.links" :key="one.subject">
        <dt>Link</dt>
        <dd>{{ LINKED[one.linked] }} at the near end of {{ one.name }}</dd>
      </template>
    </dl>
    <div class="covers" role="group" aria-label="Covers">
      <v-btn
        v-for="one in state.covers"
        :key="one.key"
        :variant="one.off ? 'tonal' : 'outlined'"
        :aria-pressed="one.off"
        :disabled="busy"
        @click="emit('act', { kind: 'cover', place: one.key, off: !one.off })"
        >{{ one.name }}: {{ one.off ? 'off' : 'on' }}</v-btn
      >
    </div>
    <div class="acts">
      <v-btn
        v-for="one in state.links"
        :key="one.subject"
        variant="outlined"
        :disabled="busy"
        @click="emit('act', { kind: 'unlink', subject: one.subject })"
        >Take the link out: {{ one.name }}</v-btn
      >
      <v-btn v-if="!state.isolated" variant="outlined" :disabled="busy" @click="isolate"
        >Switch off, prove dead, lock off</v-btn
      >
      <template v-else-if="!state.energised">
        <v-btn
          v-for="box in unsigned"
          :key="box.key"
          variant="outlined"
          :disabled="busy"
          @click="emit('act', { kind: 'sign', step: 'box_made_up', subject: box.key })"
          >{{ box.name }}</v-btn
        >
      </template>
      <v-btn v-if="state.isolated && !state.energised" variant="outlined" :disabled="busy" @click="energise"
        >Fit to energise: switch on</v-btn
      >
      <v-btn
        v-if="state.energised"
        variant="outlined"
        :disabled="busy"
        @click="emit('act', { kind: 'switch', on: !state.main_on })"
      >
        {{ state.main_on ? 'Main switch off, locked' : 'Main switch on' }}
      </v-btn>
      <v-btn variant="outlined" :disabled="busy" @click="emit('act', { kind: 'connect', connected: !state.connected })">
        {{ state.connected ? 'Take the unit off' : 'Connect the unit' }}
      </v-btn>
      <v-btn v-if="state.limited" variant="outlined" :disabled="busy" @click="emit('act', { kind: 'clamp' })"
        >Test the clamp with the shower</v-btn
      >
    </div>
  </section>
</template>

<style scoped>
.house,
.covers,
.acts {
  display: grid;
  gap: 8px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  margin: 0;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
}
.live {
  font-weight: 700;
  color: var(--falls_short);
}
</style>
