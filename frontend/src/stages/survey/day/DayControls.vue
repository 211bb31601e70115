<script setup lang="ts">
// What a day is tried with: limit, plug-in time, battery, charge wanted, onboard charger, season, tariff.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import { clock } from './clock'
import SliderField from '../../../shared/fields/SliderField.vue'

const limit = defineModel<number | null>('limit', { required: true })

const store = useJob()
const day = computed(() => store.job!.day)
const NO_LIMIT = 101
const tried = computed(() => limit.value !== store.job!.supply.load_limit_a)
const set = (field: string, value: unknown) => store.change(`day.${field}`, value)
const ON_OFF = [
  { value: true, words: 'yes' },
  { value: false, words: 'no' },
]
const WEEKEND = [
  { value: false, words: 'weekday' },
  { value: true, words: 'weekend' },
]
</script>

<template>
  <section class="controls" aria-label="Try another day">
    <SliderField
      label="Load limit"
      :min="20"
      :max="NO_LIMIT"
      :step="1"
      :model-value="limit ?? NO_LIMIT"
      :words="limit === null ? 'none' : `${limit} A`"
      @update:model-value="limit = $event === NO_LIMIT ? null : $event"
    />
    <SliderField
      label="Plugged in at"
      :min="0"
      :max="1425"
      :step="15"
      :model-value="day.plug_in_min"
      :words="clock(day.plug_in_min)"
      @update:model-value="set('plug_in_min', $event)"
    />
    <SliderField
      label="Battery"
      :min="5"
      :max="120"
      :step="1"
      :model-value="day.battery_kwh ?? 60"
      :words="day.battery_kwh === null ? 'not known' : `${day.battery_kwh} kWh`"
      @update:model-value="set('battery_kwh', $event)"
    />
    <SliderField
      label="Onboard charger"
      :min="1.4"
      :max="22"
      :step="0.1"
      :model-value="day.onboard_kw ?? 7.4"
      :words="day.onboard_kw === null ? 'not known' : `${day.onboard_kw} kW`"
      @update:model-value="set('onboard_kw', $event)"
    />
    <SliderField
      label="Charge when it comes home"
      :min="0"
      :max="100"
      :step="5"
      :model-value="day.from_percent"
      :words="`${day.from_percent} %`"
      @update:model-value="set('from_percent', $event)"
    />
    <SliderField
      label="Charge wanted"
      :min="0"
      :max="100"
      :step="5"
      :model-value="day.to_percent"
      :words="`${day.to_percent} %`"
      @update:model-value="set('to_percent', $event)"
    />
    <template v-if="day.off_peak">
      <SliderField
        label="Off-peak from"
        :min="0"
        :max="1410"
        :step="30"
        :model-value="day.off_peak_from_min"
        :words="clock(day.off_peak_from_min)"
        @update:model-value="set('off_peak_from_min', $event)"
      />
      <SliderField
        label="Off-peak to"
        :min="0"
        :max="1410"
        :step="30"
        :model-value="day.off_peak_to_min"
        :words="clock(day.off_peak_to_min)"
        @update:model-value="set('off_peak_to_min', $event)"
      />
    </template>
    <p v-if="tried" class="tried">
      <v-btn variant="outlined" size="small" @click="store.change('supply.load_limit_a', limit)"
        >Keep {{ limit === null ? 'no load limit' : `the limit of ${limit} A` }}</v-btn
      >
      <button type="button" class="link" @click="limit = store.job!.supply.load_limit_a">Back</button>
    </p>
    <div class="taps">
      <TapField path="day.season" label="Season" choice="Season" />
      <TapField path="day.weekend" label="Day" :items="WEEKEND" />
      <TapField path="day.off_peak" label="Off-peak only" :items="ON_OFF" />
      <TapField path="day.random_delay" label="Random delay" :items="ON_OFF" />
    </div>
    <JobField path="day.car" label="Car" class="wide" />
  </section>
</template>

<style scoped>
.controls {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 250px), 1fr));
  gap: 12px 28px;
  border-top: 1px solid var(--line);
  padding-top: 14px;
}
.tried,
.taps,
.wide {
  grid-column: 1 / -1;
}
.tried {
  display: flex;
  gap: 12px;
  align-items: center;
}
.taps {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 26px;
}
</style>
