<script setup lang="ts">
// The chain of residual-current devices: what each sees of a residual current at the car, and which goes blind.
import { computed, ref } from 'vue'

import { answer, api } from '../../../api/client'
import type { ResidualChain, Waveform } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import SliderField from '../../../shared/fields/SliderField.vue'
import TapGroup from '../../../shared/fields/TapGroup.vue'
import { useAsked } from '../../../shared/useAsked'
import WaveformMark from '../../survey/drawings/WaveformMark.vue'

const store = useJob()
const waveform = ref<Waveform>('smooth')
const residual = ref(6)
const standing = ref(0)
const WAVES = [
  { value: 'ac' as const, words: 'alternating' },
  { value: 'pulsating' as const, words: 'pulsating DC' },
  { value: 'smooth' as const, words: 'smooth DC' },
]
const question = computed(
  () =>
    store.judged && {
      job: store.judged,
      charge_point: store.judged.charge_points[store.pointIndex]?.id ?? '',
      waveform: waveform.value,
      residual_ma: residual.value,
      standing_dc_ma: standing.value,
    },
)
const { found, failed } = useAsked(
  () => question.value,
  (body) => answer<ResidualChain>(api.POST('/api/v1/protection/chain', { body })),
)
const REACTION = {
  opens: 'opens',
  may_open: 'may open',
  stays: 'stays closed',
  sees_nothing: 'sees nothing of it',
  blind: 'blind',
}
const mark = (name: string) => name.match(/^Type (AC|A|F|B)/)?.[1] ?? ''
</script>

<template>
  <section class="protect" aria-label="RCDs and DC">
    <TapGroup
      label="Residual current at the car"
      :answers="WAVES"
      :chosen="(one) => one === waveform"
      @tap="waveform = $event"
    />
    <div class="sliders">
      <SliderField
        label="How much"
        :min="0"
        :max="300"
        :step="1"
        :model-value="residual"
        :words="`${residual} mA`"
        @update:model-value="residual = $event"
      />
      <SliderField
        label="Smooth DC that flows beside it"
        :min="0"
        :max="60"
        :step="1"
        :model-value="standing"
        :words="`${standing} mA`"
        @update:model-value="standing = $event"
      />
    </div>
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
    <template v-if="found">
      <p class="told" role="status">{{ found.told }}</p>
      <ol>
        <li class="end">Street</li>
        <li v-for="(device, index) in found.devices" :key="index" :class="device.reaction">
          <p class="quiet small">{{ device.place }}</p>
          <WaveformMark v-if="mark(device.name)" :type="mark(device.name)" class="mark" aria-hidden="true" />
          <p>
            <b>{{ device.name }}</b>
          </p>
          <p class="reaction">
            {{ REACTION[device.reaction]
            }}<template v-if="device.opens_s !== null"> by {{ device.opens_s }} s</template>
          </p>
          <p class="small">{{ device.told }}</p>
        </li>
        <li class="end">Car</li>
      </ol>
      <p class="quiet small">What a device must do by its standard; from memory. A device may do better.</p>
    </template>
  </section>
</template>

<style src="./page.css" />
<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: stretch;
}
li {
  flex: 1 1 150px;
  max-width: 260px;
  background: var(--sheet);
  border: 2px solid var(--line);
  border-radius: 8px;
  padding: 10px 12px;
}
.end {
  flex: 0 0 auto;
  align-self: center;
  background: none;
  border: 0;
  font-weight: 700;
  padding: 0 4px;
}
.mark {
  height: 44px;
  width: auto;
}
.reaction {
  font-weight: 700;
}
.opens {
  border-color: var(--meets);
}
.blind {
  border-color: var(--falls_short);
}
.blind .reaction {
  color: var(--falls_short);
}
.opens .reaction {
  color: var(--meets);
}
</style>
