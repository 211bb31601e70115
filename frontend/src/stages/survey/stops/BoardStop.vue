<script setup lang="ts">
// The board at the origin: make-up, case, the RCD in front, surge protection, spare ways, main switch.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import BoardDrawing from '../drawings/BoardDrawing.vue'
import BoardMakerFields from './BoardMakerFields.vue'
import MainSwitchFields from './MainSwitchFields.vue'
import FrontRcdField from './FrontRcdField.vue'
import { YES_NO } from './items'

const store = useJob()
const board = computed(() => store.job!.boards[0])
</script>

<template>
  <template v-if="board">
    <TapField path="boards.0.fitted_with_this_job" label="Is it a new board, fitted with this job?" :items="YES_NO" />
    <template v-if="!board.fitted_with_this_job">
      <TapField path="boards.0.make_up" label="How is it made up?" choice="MakeUp">
        <template #picture="{ value }"><BoardDrawing :make-up="value" /></template>
      </TapField>
      <JobField path="boards.0.spare_ways" label="Spare ways" kind="number" class="short" />
      <TapField
        path="boards.0.looked_inside"
        label="Looked over with the lid off?"
        choice="Seen"
        hint="Loose or over-stripped conductors, a ring end not clamped, scorching."
      />
      <TapField path="boards.0.labels_complete" label="Are its circuits labelled?" choice="Seen" />
    </template>
    <FrontRcdField />
    <TapField path="boards.0.indoors" label="Stands indoors" :items="YES_NO" />
    <TapField path="boards.0.enclosure" label="Case" choice="Enclosure" />
    <TapField path="boards.0.surge_protection" label="Surge protection fitted" choice="Seen" />
    <BoardMakerFields :index="0" />
    <div class="pair">
      <MainSwitchFields />
      <JobField path="boards.0.name" label="Name" />
      <JobField path="boards.0.location" label="Where it stands" />
      <JobField path="boards.0.conditional_rating_ka" label="Rated with the cut-out fuse" kind="number" unit="kA" />
      <JobField path="boards.0.ways" label="Ways in all" kind="number" />
      <JobField path="circuits.0.way" label="Way of the new circuit" />
      <JobField path="circuits.0.name" label="What it serves" />
    </div>
  </template>
  <p v-else class="quiet">This job has no board yet. Start from a blank sheet, or bring in a job file that has one.</p>
</template>
