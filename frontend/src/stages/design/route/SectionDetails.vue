<script setup lang="ts">
// What else bears on one section: heat, company, its own cable, how it is laid, what was seen; split and join.
import { computed, ref } from 'vue'

import type { Cable, Circuit, Section } from '../../../api/types'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import { typedNumber } from '../../../shared/format'
import { useCables } from '../useCables'
import SectionMethod from './SectionMethod.vue'
import type { RouteAct } from './useRouteWriting'

const props = defineProps<{ path: string; circuit: Circuit; section: Section; index: number }>()
const emit = defineEmits<{ write: [act: RouteAct]; move: [by: number] }>()

const YES_NO = [
  { value: true, words: 'yes' },
  { value: false, words: 'no' },
]
const GROUP = Array.from({ length: 9 }, (_, index) => ({
  value: index + 1,
  words: index ? `${index + 1} circuits` : 'alone',
}))
const { items, sizes, byId } = useCables()
const inGround = computed(() => ['buried', 'duct'].includes(props.section.surroundings))
const onClips = computed(() =>
  ['clipped', 'under_floor', 'loft', 'loft_under', 'post'].includes(props.section.surroundings),
)
const cable = computed(() => props.section.cable ?? props.circuit.cable)
const keepOff = computed(() => props.section.hazards.some((one) => one === 'pipes' || one === 'data_cables'))
const cut = ref(String(Math.round(props.section.length_m * 5) / 10))

const split = () => emit('write', { act: 'split', index: props.index, at_m: Number(typedNumber(cut.value) ?? 0) })
function lay(changed: Partial<Cable>): void {
  const wanted = { ...cable.value, ...changed }
  const made = byId(wanted.record)?.sizes_mm2 ?? []
  if (!made.includes(wanted.csa_mm2))
    wanted.csa_mm2 = made.find((size) => size >= wanted.csa_mm2) ?? made.at(-1) ?? wanted.csa_mm2
  emit('write', { act: 'cable', index: props.index, cable: wanted })
}
</script>

<template>
  <div class="details">
    <JobField
      :path="`${path}.temperature_c`"
      :label="inGround ? 'Ground, else 20' : 'Air, else 30'"
      kind="number"
      unit="°C"
    />
    <JobField :path="`${path}.grouped_circuits`" label="Grouped with" kind="choice" :items="GROUP" />
    <SectionMethod :path="path" :circuit="circuit.id" :index="index" class="two" />
    <template v-if="inGround">
      <JobField :path="`${path}.soil_km_per_w`" label="Soil resistivity" kind="number" unit="K·m/W" />
      <JobField :path="`${path}.in_duct`" label="In a duct" kind="choice" :items="YES_NO" />
    </template>
    <template v-else>
      <JobField
        v-if="(section.grouped_circuits ?? 1) > 1"
        :path="`${path}.single_layer`"
        label="Side by side, not bunched"
        kind="choice"
        :items="YES_NO"
      />
      <JobField
        v-if="!['in_wall', 'loft_under'].includes(section.surroundings)"
        :path="`${path}.insulation_mm`"
        label="In insulation for"
        kind="number"
        unit="mm"
      />
      <JobField
        v-if="section.surroundings === 'in_wall'"
        :path="`${path}.metal_frame`"
        label="Metal parts in the wall"
        kind="choice"
        :items="YES_NO"
      />
      <JobField :path="`${path}.concealed_under_50_mm`" label="Hidden under 50 mm" kind="choice" :items="YES_NO" />
      <JobField
        v-if="section.concealed_under_50_mm"
        :path="`${path}.in_zone`"
        label="In the usual zones"
        kind="choice"
        choice="Seen"
      />
    </template>
    <JobField
      v-if="inGround || ['through_wall', 'post'].includes(section.surroundings)"
      :path="`${path}.way_made`"
      :label="inGround ? 'Trench or duct' : 'Its hole'"
      kind="choice"
      choice="WayMade"
    />
    <template v-if="inGround">
      <JobField :path="`${path}.depth_m`" label="Depth" kind="number" unit="m" />
      <JobField :path="`${path}.trench_width_m`" label="Trench, width" kind="number" unit="m" />
      <JobField :path="`${path}.under_drive`" label="Under a drive" kind="choice" :items="YES_NO" />
      <JobField :path="`${path}.warning_tape`" label="Warning tape" kind="choice" :items="YES_NO" />
    </template>
    <JobField
      v-if="['clipped', 'conduit_or_trunking', 'tray'].includes(section.surroundings)"
      :path="`${path}.outdoors`"
      label="Outdoors here"
      kind="choice"
      :items="YES_NO"
    />
    <template v-if="onClips">
      <JobField :path="`${path}.fixings`" label="Fixings" kind="choice" choice="Fixings" />
      <JobField :path="`${path}.clip_spacing_mm`" label="Clips every" kind="number" unit="mm" />
    </template>
    <template v-if="section.surroundings === 'post'">
      <JobField :path="`${path}.hole_depth_m`" label="Hole, depth" kind="number" unit="m" />
      <JobField :path="`${path}.hole_width_m`" label="Hole, width" kind="number" unit="m" />
    </template>
    <JobField
      v-if="section.surroundings === 'through_wall'"
      :path="`${path}.fire_stopped`"
      label="Sealed and fire-stopped"
      kind="choice"
      :items="YES_NO"
    />
    <JobField :path="`${path}.bend_radius_mm`" label="Tightest bend" kind="number" unit="mm" />
    <JobField :path="`${path}.length_by`" label="Length known" kind="choice" choice="LengthBy" />
    <v-select
      class="two"
      label="Cable here"
      :model-value="cable.record"
      :items="items"
      item-title="words"
      item-value="value"
      @update:model-value="lay({ record: $event })"
    />
    <v-select
      label="Size here"
      :model-value="cable.csa_mm2"
      :items="sizes(cable.record)"
      item-title="words"
      item-value="value"
      @update:model-value="lay({ csa_mm2: $event })"
    />
    <JobField
      v-if="section.cable"
      :path="`${path}.joint_accessible`"
      label="Joint can be reached"
      kind="choice"
      choice="Seen"
    />
    <TapField :path="`${path}.hazards`" label="Seen here" choice="Hazard" many class="wide" />
    <JobField v-if="keepOff" :path="`${path}.clearance_mm`" label="Least distance to them" kind="number" unit="mm" />
    <div class="wide acts">
      <v-text-field v-model="cut" label="Cut it at" suffix="m" inputmode="decimal" class="cut" />
      <v-btn variant="outlined" size="small" @click="split">Split</v-btn>
      <v-btn
        v-if="index < circuit.route.length - 1"
        variant="outlined"
        size="small"
        @click="emit('write', { act: 'join', index })"
        >Join with the next</v-btn
      >
      <v-btn v-if="index > 0" variant="text" size="small" @click="emit('move', -1)">Move up</v-btn>
      <v-btn v-if="index < circuit.route.length - 1" variant="text" size="small" @click="emit('move', 1)"
        >Move down</v-btn
      >
    </div>
  </div>
</template>

<style scoped>
.details {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 164px), 1fr));
  gap: 10px;
  padding: 8px 0;
}
@media (max-width: 839px) {
  .details {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
.wide {
  grid-column: 1 / -1;
}
.two {
  grid-column: span 2;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.cut {
  max-width: 120px;
}
</style>
