<script setup lang="ts">
// One stop of the walk: what to look at, its questions, photos beside them, defects found in passing.
import { computed, defineAsyncComponent, ref, type Component } from 'vue'

import type { Stop } from '../../api/types'
import { useJob } from '../../job/useJob'
import DefectList from './DefectList.vue'
import { LOOK } from './parts'
import PhotoStrip from './PhotoStrip.vue'

const props = defineProps<{ stop: Stop }>()
defineEmits<{ go: [part: string] }>()

// Each stop's questions are fetched when you get there.
const PAGES: Record<Stop, Component> = {
  cut_out: defineAsyncComponent(() => import('./stops/CutOutStop.vue')),
  meter: defineAsyncComponent(() => import('./stops/MeterStop.vue')),
  tails: defineAsyncComponent(() => import('./stops/TailsStop.vue')),
  earth: defineAsyncComponent(() => import('./stops/EarthStop.vue')),
  board: defineAsyncComponent(() => import('./stops/BoardStop.vue')),
  route: defineAsyncComponent(() => import('./stops/RouteStop.vue')),
  parking: defineAsyncComponent(() => import('./stops/ParkingStop.vue')),
  data: defineAsyncComponent(() => import('./stops/DataStop.vue')),
  loads: defineAsyncComponent(() => import('./load/LoadStop.vue')),
  ownership: defineAsyncComponent(() => import('./stops/OwnershipStop.vue')),
  charge_point: defineAsyncComponent(() => import('./stops/ChargePointStop.vue')),
}
// Where something of the existing installation can be found wrong.
const WITH_DEFECTS: Stop[] = ['cut_out', 'meter', 'tails', 'earth', 'board', 'route']

// What follows the questions is shown with them: nothing is pushed down as they come.
const arrived = ref(false)
const store = useJob()
const stops = computed(() => store.evaluation!.stops)
const index = computed(() => stops.value.findIndex((one) => one.stop === props.stop))
const next = computed(() => stops.value[index.value + 1])
</script>

<template>
  <article class="middle" :class="{ coming: !arrived }">
    <header>
      <div>
        <p class="count">Stop {{ index + 1 }} of {{ stops.length }}</p>
        <h2 class="headline">{{ stops[index]?.name }}</h2>
        <p class="look">{{ LOOK[stop] }}</p>
      </div>
      <PhotoStrip :stop="stop" />
    </header>
    <div class="questions"><component :is="PAGES[stop]" @vue:mounted="arrived = true" /></div>
    <DefectList v-if="arrived && WITH_DEFECTS.includes(stop)" :key="stop" :stop="stop" />
    <v-btn v-if="arrived" color="ink" class="next" @click="$emit('go', next?.stop ?? 'open')">{{
      next ? `Next: ${next.name}` : 'What is still open'
    }}</v-btn>
  </article>
</template>

<style scoped>
/* What follows the article comes with its questions, below them. */
.coming {
  min-height: 100vh;
}
.count {
  font-weight: 700;
  color: var(--quiet);
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 20px;
  justify-content: space-between;
  align-items: flex-start;
}
header > div {
  flex: 1 1 300px;
  display: grid;
  gap: 4px;
}
.questions {
  display: grid;
  gap: 20px;
  margin: 10px 0;
  min-width: 0;
}
.questions :deep(.pair) {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 230px), 1fr));
  gap: 14px;
}
.questions :deep(.short) {
  max-width: 240px;
}
.next {
  justify-self: start;
  margin-top: 8px;
}
/* On a phone the first question is in sight: the list above says which stop it is. */
@media (max-width: 839px) {
  .count,
  .look {
    display: none;
  }
  header {
    flex-wrap: nowrap;
    align-items: center;
  }
  header > div {
    flex: 1 0 auto;
    max-width: 70%;
  }
  .next {
    justify-self: stretch;
  }
}
</style>
