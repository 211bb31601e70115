<script setup lang="ts">
// The electrode planner: what rods in this soil come to, in winter too, how to test them, how to come lower.
import { computed, onMounted, ref } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { ElectrodeOutlook, ElectrodePlan, Soil } from '../../../api/types'
import WorkingLines from '../../../checks/WorkingLines.vue'
import { useJob } from '../../../job/useJob'
import SliderField from '../../../shared/fields/SliderField.vue'
import TapGroup from '../../../shared/fields/TapGroup.vue'
import { useAsked } from '../../../shared/useAsked'
import VerdictMark from '../../../shared/VerdictMark.vue'
import ElectrodeSeasons from './ElectrodeSeasons.vue'
import FallOfPotential from './FallOfPotential.vue'

const store = useJob()
const soils = ref<Soil[]>([])
const missing = ref('')
const plan = ref<ElectrodePlan>({
  soil: 'garden',
  resistivity_ohm_m: null,
  rod_m: 2.4,
  rod_mm: 16,
  rods: 1,
  spacing_m: 2.4,
  ground_now_c: 10,
  ground_winter_c: 0,
  residual_ma: 30,
  wanted_ohm: 200,
})
const { found, failed } = useAsked(
  () => plan.value,
  (body) => answer<ElectrodeOutlook>(api.POST('/api/v1/protection/electrode', { body })),
)
const field = computed(() =>
  store.job!.supply.earthing === 'tt'
    ? 'supply.electrode_design_ohm'
    : `charge_points.${store.pointIndex}.arrangement.electrode_design_ohm`,
)
const ohm = (value: number) => `${value.toFixed(value < 10 ? 1 : 0)} Ω`

function setRods(rods: number): void {
  plan.value.rods = rods
  if (rods > 1) plan.value.spacing_m = Math.max(plan.value.spacing_m, plan.value.rod_m)
}
function setLength(length: number): void {
  plan.value.rod_m = length
  if (plan.value.rods > 1) plan.value.spacing_m = Math.max(plan.value.spacing_m, length)
}
onMounted(async () => {
  try {
    soils.value = (await answer<{ soils: Soil[] }>(api.GET('/api/v1/protection/teaching'))).soils
  } catch (error) {
    missing.value = asProblem(error).detail
  }
})
</script>

<template>
  <section class="protect" aria-label="Electrode">
    <TapGroup
      v-if="soils.length"
      label="Soil"
      :answers="soils.map((one) => ({ value: one.key, words: one.name }))"
      :chosen="(one) => one === plan.soil"
      @tap="plan.soil = $event"
    />
    <p v-if="missing || failed" class="failed" role="alert">{{ missing || failed }}</p>
    <div class="sliders">
      <SliderField
        label="Rod, driven length"
        :min="1.2"
        :max="9.6"
        :step="0.6"
        :model-value="plan.rod_m"
        :words="`${plan.rod_m} m`"
        @update:model-value="setLength"
      />
      <SliderField
        label="Rod, diameter"
        :min="9"
        :max="25"
        :step="1"
        :model-value="plan.rod_mm"
        :words="`${plan.rod_mm} mm`"
        @update:model-value="plan.rod_mm = $event"
      />
      <SliderField
        label="Rods in a row"
        :min="1"
        :max="6"
        :step="1"
        :model-value="plan.rods"
        :words="String(plan.rods)"
        @update:model-value="setRods"
      />
      <SliderField
        v-if="plan.rods > 1"
        label="Apart"
        :min="plan.rod_m"
        :max="15"
        :step="0.6"
        :model-value="plan.spacing_m"
        :words="`${plan.spacing_m.toFixed(1)} m`"
        @update:model-value="plan.spacing_m = $event"
      />
      <SliderField
        label="Ground on the day"
        :min="-5"
        :max="20"
        :step="1"
        :model-value="plan.ground_now_c"
        :words="`${plan.ground_now_c} °C`"
        @update:model-value="plan.ground_now_c = $event"
      />
      <SliderField
        label="Ground in winter"
        :min="-15"
        :max="10"
        :step="1"
        :model-value="plan.ground_winter_c"
        :words="`${plan.ground_winter_c} °C`"
        @update:model-value="plan.ground_winter_c = $event"
      />
      <SliderField
        label="RCD"
        :min="30"
        :max="300"
        :step="10"
        :model-value="plan.residual_ma"
        :words="`${plan.residual_ma} mA`"
        @update:model-value="plan.residual_ma = $event"
      />
      <SliderField
        label="Wanted in winter, at most"
        :min="1"
        :max="200"
        :step="1"
        :model-value="plan.wanted_ohm"
        :words="`${plan.wanted_ohm} Ω`"
        @update:model-value="plan.wanted_ohm = $event"
      />
    </div>
    <template v-if="found">
      <p class="told" role="status">About {{ ohm(found.now_ohm) }}, in winter {{ ohm(found.winter_ohm) }}.</p>
      <p class="quiet">
        {{ found.soil_told }}: anything from {{ ohm(found.low_ohm) }} to {{ ohm(found.high_ohm) }} is possible. Measure
        before you rely on it.
      </p>
      <p>
        <VerdictMark :verdict="found.touch_verdict" /> {{ found.touch_v.toFixed(1) }} V in winter at
        {{ plan.residual_ma }} mA, of 50 V. <VerdictMark :verdict="found.stable_verdict" />
        {{ found.stable_told }}
      </p>
      <p>
        <v-btn variant="outlined" size="small" @click="store.change(field, Number(found.winter_ohm.toFixed(1)))"
          >Design with {{ ohm(found.winter_ohm) }}</v-btn
        >
      </p>
      <ElectrodeSeasons :found="found" :rod-m="plan.rod_m" :wanted-ohm="plan.wanted_ohm" />
      <WorkingLines :lines="found.working" />
      <table>
        <caption>
          Ways to come lower
        </caption>
        <thead>
          <tr>
            <th scope="col">Way</th>
            <th scope="col" class="num">Now</th>
            <th scope="col" class="num">Winter</th>
            <th scope="col" class="takes">Takes</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="way in found.ways" :key="way.title">
            <th scope="row"><VerdictMark :verdict="way.verdict" /> {{ way.title }}</th>
            <td class="num figure">{{ ohm(way.now_ohm) }}</td>
            <td class="num figure">{{ ohm(way.winter_ohm) }}</td>
            <td class="takes">
              {{ way.rods }} rods of 1.2 m, {{ way.driven_m }} m driven<template v-if="way.trench_m"
                >, {{ way.trench_m }} m trench</template
              >
            </td>
          </tr>
        </tbody>
      </table>
      <p class="quiet small">
        None low enough? Give up TT for this job: a unit with an open-PEN device on the house earth.
      </p>
      <FallOfPotential :plan="found.test" :ground-c="plan.ground_now_c" />
    </template>
  </section>
</template>

<style src="./page.css" />
<style scoped>
.takes {
  padding-left: 12px;
}
</style>
