<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import CutOutDrawing from '../drawings/CutOutDrawing.vue'
import EarthingDrawing from '../drawings/EarthingDrawing.vue'
import LoopDrawing from '../drawings/LoopDrawing.vue'
import { usePhotos } from '../usePhotos'
import { FUSES, PHASES, YES_NO } from './items'

const store = useJob()
const { photos } = usePhotos(() => 'cut_out')
const supply = computed(() => store.job!.supply)
const letters = computed(() => [
  { value: '', words: 'none yet' },
  ...photos.value.map((photo, index) => ({ value: photo.sha256, words: `photo ${index + 1}` })),
])
const TOLD = 'supply.operator_told_of_ze'
</script>

<template>
  <TapField path="supply.earthing" label="Where does the earth conductor start?" choice="Earthing">
    <template #picture="{ value }"><EarthingDrawing :earthing="value" /></template>
  </TapField>
  <TapField path="supply.phases" label="Phases of the supply" :items="PHASES" />
  <template v-if="supply.earthing === 'tn_s'">
    <TapField
      path="supply.tns_school"
      label="Take this TN-S"
      choice="TnsSchool"
      hint="It may become PME one day without a word. Accepting it as found needs the operator’s written word."
    />
    <TapField
      v-if="supply.tns_school === 'as_found'"
      path="supply.tns_confirmed_in_writing"
      label="Operator confirmed it in writing"
      :items="YES_NO"
    />
    <TapField
      v-if="supply.tns_school === 'as_found'"
      path="supply.tns_confirmation"
      label="The letter, as a photo of this stop"
      :items="letters"
    />
  </template>
  <TapField
    path="supply.looped"
    label="Looped to a neighbour?"
    choice="Seen"
    hint="A second thick cable out of the cut-out means looped."
  >
    <template #picture="{ value }"><LoopDrawing :looped="value === 'yes'" /></template>
  </TapField>
  <TapField
    v-if="supply.looped === 'yes'"
    path="supply.neighbour_charge_point"
    label="Has the neighbour a charge point?"
    choice="Seen"
  />
  <TapField
    path="supply.cut_out_condition"
    label="How does the cut-out look?"
    choice="CutOutCondition"
    hint="Look, don’t open. Seal and fuse are the operator’s."
  >
    <template #picture="{ value }"><CutOutDrawing :condition="value" /></template>
  </TapField>
  <TapField path="supply.cut_out_fuse_a" label="Fuse, as the carrier is marked" :items="FUSES" />
  <TapField
    path="supply.fuse_proven"
    label="Is the fuse inside proven to be that?"
    choice="Seen"
    hint="The marking proves nothing; the operator’s record does."
  />
  <TapField
    path="supply.operator_allows_to_rating"
    label="Does the operator’s process allow notifying up to its rating?"
    choice="Seen"
  />
  <TapField
    path="supply.cut_out_fuse_standard"
    label="Fuse standard, as marked"
    choice="FuseStandard"
    hint="An old BS 1361 opens on less loop than a BS 88-3; not seen counts as the slower."
  />
  <JobField v-if="supply.cut_out_fuse_standard === 'other'" path="supply.cut_out_fuse_mark" label="What it says" />
  <div class="pair">
    <JobField
      path="supply.ze_enquiry_ohm"
      label="Ze by enquiry"
      kind="number"
      unit="Ω"
      hint="Empty: the declared maximum counts"
    />
    <JobField path="supply.pscc_enquiry_ka" label="Fault current by enquiry" kind="number" unit="kA" />
  </div>
  <TapField
    v-if="store.evaluation?.asked.includes(TOLD) || supply.operator_told_of_ze !== 'not_seen'"
    :path="TOLD"
    label="Ze is above what is declared: was the operator told?"
    choice="Seen"
  />
</template>
