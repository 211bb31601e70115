<script setup lang="ts">
// The fall-of-potential test: where the spikes go, and the record of its three readings.
import { computed, ref, watch } from 'vue'

import type { ElectrodeOutlook } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { today, typedNumber } from '../../../shared/format'
import { usePerson } from '../../../shared/usePerson'

const props = defineProps<{ plan: ElectrodeOutlook['test']; groundC: number }>()

const store = useJob()
const { name } = usePerson()
const field = computed(() => `charge_points.${store.pointIndex}.arrangement.fall_of_potential`)
const kept = computed(() => store.job!.charge_points[store.pointIndex]?.arrangement.fall_of_potential)
const readings = ref(['', '', ''])
watch(kept, (now) => (readings.value = now ? now.readings_ohm.map(String) : ['', '', '']), { immediate: true })
const whole = computed(
  () => readings.value.every((one) => typeof typedNumber(one) === 'number') && name.value.trim().length > 1,
)
const x = (metres: number) => 40 + (metres / props.plan.current_spike_m) * 520

function keep(): void {
  const value = {
    current_spike_m: props.plan.current_spike_m,
    readings_ohm: readings.value.map(typedNumber),
    ground_c: props.groundC,
    taken_by: name.value.trim(),
    taken_on: today(),
  }
  store.sign('a fall-of-potential test', [{ field: field.value, value }])
}
const spikes = computed(() => {
  const { potential_spike_m: potential, current_spike_m: current } = props.plan
  return `Electrode, potential spike at ${potential.join(', ')} m, current spike at ${current} m, in one line.`
})
</script>

<template>
  <section aria-label="Fall-of-potential test">
    <h2>Test it by fall of potential</h2>
    <svg viewBox="0 0 600 96" role="img" :aria-label="spikes">
      <path d="M20 50H580" class="ground" />
      <path d="M40 36v44M560 40v24" class="spike" />
      <path v-for="at in plan.potential_spike_m" :key="at" :d="`M${x(at)} 42v16`" class="spike thin" />
      <text x="40" y="26" text-anchor="middle">electrode</text>
      <text x="560" y="26" text-anchor="middle">current {{ plan.current_spike_m }} m</text>
      <text
        v-for="(at, index) in plan.potential_spike_m"
        :key="at"
        :x="x(at)"
        :y="index === 1 ? 78 : 34"
        text-anchor="middle"
      >
        {{ index === 1 ? `61.8 %: ${at} m` : `${at} m` }}
      </text>
    </svg>
    <p class="quiet small">{{ plan.told }}</p>
    <form @submit.prevent="keep">
      <v-text-field
        v-for="(at, index) in plan.potential_spike_m"
        :key="at"
        v-model="readings[index]"
        :label="`Spike at ${at} m`"
        suffix="Ω"
        inputmode="decimal"
      />
      <v-text-field v-model="name" label="Taken by" maxlength="200" />
      <v-btn type="submit" color="ink" :disabled="!whole">Keep the three</v-btn>
    </form>
    <p v-if="kept" class="small">
      Kept: {{ kept.readings_ohm.join(', ') }} Ω by {{ kept.taken_by }}, {{ kept.taken_on }}. The check beside says
      whether they agree.
    </p>
    <p v-if="store.errorAt(field)" class="failed" role="alert">
      {{ store.errorAt(field) }}
    </p>
  </section>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 640px;
}
text {
  font-size: 13px;
  fill: var(--ink);
}
.ground {
  stroke: var(--quiet);
  stroke-width: 2;
}
.spike {
  stroke: var(--copper);
  stroke-width: 6;
}
.spike.thin {
  stroke: var(--ink);
  stroke-width: 3;
}
form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
  gap: 8px;
  align-items: center;
  padding: 8px 0;
}
</style>
