<script setup lang="ts">
// The survey: a walk from the street inwards, what is still open, a day on the supply, the network operator.
import { computed, defineAsyncComponent, watch } from 'vue'
import { useRouter } from 'vue-router'

import type { Finding, Settled, Stop } from '../../api/types'
import ChecksLedger from '../../checks/ChecksLedger.vue'
import { useJob } from '../../job/useJob'
import { useNext } from '../../job/useNext'
import SideList from '../../shared/SideList.vue'
import { FOLLOWS, type PartKey } from './parts'
import StopPage from './StopPage.vue'
import { usePhotos } from './usePhotos'

const DayPage = defineAsyncComponent(() => import('./day/DayPage.vue'))
const OperatorPage = defineAsyncComponent(() => import('./operator/OperatorPage.vue'))
const OpenPage = defineAsyncComponent(() => import('./asking/OpenPage.vue'))

const props = defineProps<{ part?: string }>()
const emit = defineEmits<{ at: [node: string] }>()

const store = useJob()
const router = useRouter()
const { list } = usePhotos(() => 'cut_out')
watch(
  () => store.id,
  (id) => void list(id),
  { immediate: true },
)

const stops = computed(() => store.evaluation!.stops)
const follows = computed(() => FOLLOWS.some((one) => one.key === props.part))
const stop = computed<Stop>(() => stops.value.find((one) => one.stop === props.part)?.stop ?? 'cut_out')
const current = computed<PartKey>(() => (follows.value ? (props.part as PartKey) : stop.value))
const { leftOfPart } = useNext()

const items = computed(() => [
  ...stops.value.map((one) => ({
    key: one.stop as string,
    title: one.name,
    figure: leftOfPart(one.stop) ? `${leftOfPart(one.stop)} to settle` : one.facts ? `${one.known}/${one.facts}` : '',
    open: one.known < one.facts,
  })),
  ...FOLLOWS.map((one, index) => ({
    ...one,
    head: index === 0 ? '' : undefined,
    open: false,
    figure:
      one.key === 'open'
        ? String(store.evaluation!.questions.length)
        : leftOfPart(one.key)
          ? `${leftOfPart(one.key)} to settle`
          : '',
  })),
])
const fold = computed(() => {
  const known = stops.value.reduce((sum, one) => sum + one.known, 0)
  return `All stops, ${known} of ${stops.value.reduce((sum, one) => sum + one.facts, 0)} facts known`
})

watch(
  () => (follows.value ? '' : (stops.value.find((one) => one.stop === stop.value)?.node ?? '')),
  (node) => emit('at', node),
  { immediate: true },
)

// Each part shows the checks that its facts settle.
const here = computed(() => new Set(stops.value.find((one) => one.stop === stop.value)?.findings ?? []))
const filter = (one: Finding | Settled) => {
  if (current.value === 'open') return 'waits_for' in one && one.waits_for !== null
  return follows.value ? one.topics.includes('operator') : here.value.has(one.key)
}

function go(part: string): void {
  void router.push({ name: 'survey', params: { id: store.id, part } }).then(() => scrollTo(0, 0))
}
</script>

<template>
  <div class="workbench">
    <SideList :items="items" :current="current" label="Stops" :fold="fold" @choose="go" />
    <OpenPage v-if="current === 'open'" @go="go" />
    <DayPage v-else-if="current === 'day'" />
    <OperatorPage v-else-if="current === 'operator'" />
    <StopPage v-else :key="stop" :stop="stop" @go="go" />
    <aside><ChecksLedger :stages="['survey', 'design']" title="What it means" :filter="filter" /></aside>
  </div>
</template>
