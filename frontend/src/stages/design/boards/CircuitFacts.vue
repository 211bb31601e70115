<script setup lang="ts">
// The facts of one circuit: its device, its cable, what it leaves the board behind, and what it must carry.
import { computed, ref } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { Section } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import { rcdWords, usualRcds } from '../../../shared/fields/rcds'
import { withValue } from '../../../shared/paths'
import { useBothWays } from '../useBothWays'
import { useCables } from '../useCables'
import DeviceFields from './DeviceFields.vue'

const props = defineProps<{ index: number; pointIndex: number }>()

const store = useJob()
const { items, sizes } = useCables()
const path = computed(() => `circuits.${props.index}`)
const circuit = computed(() => store.job!.circuits[props.index]!)
const final = computed(() => props.pointIndex >= 0)
const PHASES = [1, 3].map((value) => ({ value, words: value === 1 ? 'one' : 'three' }))
const LINES = ['L1', 'L2', 'L3'].map((value) => ({ value, words: value }))
const rcds = computed(() => [
  { value: null, words: 'none' },
  ...usualRcds(circuit.value.device.rcd, circuit.value.fitted_with_this_job || null).map((value) => ({
    value,
    words: rcdWords(value),
  })),
])
const threePhase = computed(() => store.job!.supply.phases === 3)
const point = computed(() => props.pointIndex)
// Where its way stands: straight behind the incomer, or behind the guards of a group.
const groups = computed(() => {
  const board = store.job!.boards.find((one) => one.id === circuit.value.from_board)
  return [
    { value: '', words: 'straight from the board' },
    ...(board?.groups ?? []).map((one) => ({ value: one.id, words: `behind ${one.name}` })),
  ]
})
const rings = computed(() => [
  { value: null, words: circuit.value.fitted_with_this_job ? 'no, as ordered' : 'not seen yet' },
  { value: true, words: 'yes, a ring' },
  { value: false, words: 'no, it ends' },
])
const bothWays = useBothWays()
const SEPARATE = [2.5, 4, 6, 10, 16, 25, 35, 50].map((value) => ({ value, words: `${value} mm²` }))
const failed = ref('')

/** Another kind of cable brings the methods that its table knows. */
async function lay(record: string): Promise<void> {
  failed.value = ''
  try {
    const body = {
      job: withValue(store.judged!, `${path.value}.cable.record`, record),
      circuit: circuit.value.id,
      act: 'rate' as const,
    }
    const { route } = await answer<{ route: Section[] }>(api.POST('/api/v1/route', { body }))
    store.changeAll(
      [
        { field: `${path.value}.cable.record`, value: record },
        { field: `${path.value}.route`, value: route },
      ],
      'another kind of cable',
    )
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
// Behind a single-phase sub-main the line conductor is that one's.
const behindOne = computed(
  () => store.job!.circuits.find((one) => one.feeds === circuit.value.from_board)?.phases === 1,
)
const onePhase = computed(
  () =>
    threePhase.value &&
    !behindOne.value &&
    (final.value ? store.job!.charge_points[point.value]?.phases === 1 : circuit.value.phases === 1),
)
</script>

<template>
  <section class="facts" :aria-label="circuit.name">
    <div class="fields">
      <JobField :path="`${path}.name`" label="Name" class="wide" />
      <JobField :path="`${path}.way`" label="Way" />
      <DeviceFields :index="index" />
      <JobField
        v-if="groups.length > 1"
        :path="`${path}.group`"
        label="Its way"
        kind="choice"
        :items="groups"
        class="wide"
      />
      <JobField :path="`${path}.device.rcd`" label="RCD with it" kind="choice" :items="rcds" class="wide" />
      <v-select
        label="Cable"
        :model-value="circuit.cable.record"
        :items="items"
        item-title="words"
        item-value="value"
        :error-messages="failed"
        class="wide"
        @update:model-value="lay"
      />
      <JobField :path="`${path}.cable.csa_mm2`" label="Size" kind="choice" :items="sizes(circuit.cable.record)" />
      <JobField
        :path="`${path}.cable.protective`"
        label="Protective conductor"
        kind="choice"
        choice="Protective"
        class="wide"
      />
      <JobField
        v-if="circuit.cable.protective === 'separate'"
        :path="`${path}.cable.separate_csa_mm2`"
        label="Its size"
        kind="choice"
        :items="SEPARATE"
      />
      <JobField
        :path="`${path}.terminals`"
        label="70 °C terminals"
        kind="choice"
        choice="TerminalSchool"
        class="wide"
      />
      <JobField
        v-if="final && threePhase"
        :path="`charge_points.${point}.phases`"
        label="Phases of the unit"
        kind="choice"
        :items="PHASES"
      />
      <JobField v-if="!final && threePhase" :path="`${path}.phases`" label="Phases" kind="choice" :items="PHASES" />
      <JobField v-if="onePhase" :path="`${path}.phase`" label="Line conductor" kind="choice" :items="LINES" />
      <JobField v-if="!final" :path="`${path}.load_limit_a`" label="Clamp limit" kind="number" unit="A" />
      <JobField
        v-if="final"
        :path="`charge_points.${point}.set_current_a`"
        label="Unit set to"
        kind="number"
        unit="A"
      />
      <JobField
        v-if="!circuit.feeds"
        :path="`${path}.ring`"
        label="Back to its board (ring)"
        kind="choice"
        :items="rings"
        :hint="circuit.ring ? 'Its route goes all the way round.' : undefined"
        class="wide"
      />
      <JobField
        v-if="!circuit.fitted_with_this_job"
        :path="`${path}.looked_at`"
        label="Device and cable as found"
        kind="choice"
        choice="Seen"
      />
      <JobField
        v-if="final && !circuit.fitted_with_this_job"
        :path="`${path}.serves_others`"
        label="Feeds anything else"
        kind="choice"
        choice="Seen"
      />
      <JobField
        v-if="bothWays"
        :path="`${path}.device.both_ways`"
        label="Opens either way"
        kind="choice"
        choice="Seen"
      />
      <JobField :path="`${path}.slack_m`" label="Slack at its end" kind="number" unit="m" />
    </div>
  </section>
</template>

<style src="./tree.css" />
