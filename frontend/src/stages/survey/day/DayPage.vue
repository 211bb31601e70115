<script setup lang="ts">
// A day on the supply: it answers the householder's “how long will it take?”.
import { computed, ref, watch } from 'vue'

import { useJob } from '../../../job/useJob'
import { clock } from './clock'
import DayChart from './DayChart.vue'
import DayControls from './DayControls.vue'
import { useSupplyDay } from './useSupplyDay'

const store = useJob()
// A limit tried here changes the design only when it is kept.
const limit = ref<number | null>(store.job!.supply.load_limit_a)
watch(
  () => store.job?.supply.load_limit_a,
  (kept) => (limit.value = kept ?? null),
)
const { day, failed } = useSupplyDay(
  () => store.judged,
  () => limit.value,
)
const asked = computed(() => store.job!.day)
const offPeak = computed<[number, number] | undefined>(() =>
  asked.value.off_peak ? [asked.value.off_peak_from_min, asked.value.off_peak_to_min] : undefined,
)
const hours = (minutes: number) => `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`
const facts = computed(() => {
  const now = day.value
  if (!now) return []
  return [
    {
      name: 'Into the battery',
      value: `${now.battery_kwh.toFixed(1)} kWh`,
      more: `of ${now.wanted_kwh.toFixed(1)} wanted; ${now.drawn_kwh.toFixed(1)} drawn`,
    },
    {
      name: 'Full at',
      value: now.full_min === null ? 'not by noon' : clock(now.full_min),
      more:
        now.start_min === null ? 'it never began' : `begins ${clock(now.start_min)}, at ${now.power_kw.toFixed(1)} kW`,
    },
    { name: 'Turned down', value: hours(now.throttled_min), more: `paused ${hours(now.paused_min)}` },
    {
      name: 'Highest',
      value: `${now.peak_a.toFixed(0)} A`,
      more:
        now.fuse_a === null
          ? 'cut-out fuse not seen yet'
          : now.over_fuse_min
            ? `above the fuse for ${now.over_fuse_min} min`
            : 'never above the fuse',
    },
  ]
})
</script>

<template>
  <article class="middle">
    <h2 class="headline">A day on the supply</h2>
    <p v-if="day" class="answer" role="status">{{ day.answer }}</p>
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
    <DayChart v-if="day" :day="day" :off-peak="offPeak" />
    <dl>
      <div v-for="fact in facts" :key="fact.name">
        <dt class="quiet">{{ fact.name }}</dt>
        <dd>
          <b class="figure">{{ fact.value }}</b> <span class="quiet">{{ fact.more }}</span>
        </dd>
      </div>
    </dl>
    <p v-if="day?.over_a" class="quiet small">
      Before the car has followed the clamp, up to {{ day.over_a.toFixed(0) }} A stand above the limit for a few
      seconds.
    </p>
    <p v-if="day?.assumed.length" class="assumed"><b>Taken as usual, not known:</b> {{ day.assumed.join('; ') }}.</p>
    <DayControls v-model:limit="limit" />
    <p class="quiet small">
      A made-up day of a plausible house, always the same for the same entries. It shows how a limit behaves; it
      measures no house.
    </p>
  </article>
</template>

<style scoped>
.answer {
  font-size: 1.15rem;
  font-weight: 700;
}
dl {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(132px, 1fr));
  gap: 10px 18px;
  margin: 0;
}
dt {
  font-size: 0.85rem;
}
dd {
  margin: 0;
  font-size: 0.88rem;
}
dd b {
  display: block;
  font-size: 1.25rem;
}
.assumed {
  border-left: 4px solid var(--needs);
  padding: 4px 12px;
  background: var(--sheet);
  font-size: 0.92rem;
}
@media (max-width: 839px) {
  dl {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
