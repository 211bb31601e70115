<script setup lang="ts">
// The certificate: what is still open, the inspections, the signatures, and the papers issued.
import { computed, onMounted, ref } from 'vue'

import { answer, api, asProblem } from '../../api/client'
import type { Gap, Paper } from '../../api/types'
import { useJob } from '../../job/useJob'
import FieldGroup from '../../shared/fields/FieldGroup.vue'
import JobField from '../../shared/fields/JobField.vue'
import StageColumns from '../../shared/StageColumns.vue'
import GapList from './GapList.vue'
import InspectionList from './InspectionList.vue'
import IssuedPapers from './IssuedPapers.vue'
import SignForm from './SignForm.vue'

const store = useJob()
const removed = computed(() => store.job!.site.work === 'removed')
const papers = ref<Paper[]>([])
const failed = ref('')
// Nothing is offered for signing until it was told what is open.
const gaps = computed<Gap[] | undefined>(() => store.evaluation?.gaps?.filter((gap) => gap.kind !== 'signature'))
const YEARS = [1, 2, 3, 5, 10].map((value) => ({ value, words: value === 1 ? '1 year' : `${value} years` }))

async function list(): Promise<void> {
  try {
    const params = { path: { job_id: store.id } }
    papers.value = (await answer<{ papers: Paper[] }>(api.GET('/api/v1/jobs/{job_id}/papers', { params }))).papers
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
onMounted(list)
</script>

<template>
  <StageColumns>
    <p v-if="removed" class="quiet">A record of how the unit was left: two holds, what you saw, your signature.</p>
    <InspectionList v-else />
    <FieldGroup :title="removed ? 'For the record' : 'For the certificate'">
      <JobField
        path="certificate.comments_on_existing"
        label="Comments on the existing installation"
        kind="paragraph"
        class="wide"
      />
      <JobField
        v-if="!removed"
        path="certificate.departures"
        label="Departures from the standard, if any"
        kind="paragraph"
        class="wide"
      />
      <JobField
        v-if="!removed"
        path="certificate.next_inspection_years"
        label="Inspect again within"
        kind="choice"
        :items="YEARS"
      />
    </FieldGroup>
    <FieldGroup v-if="!removed" title="Remarks beside a circuit’s test results, if any">
      <JobField
        v-for="(circuit, index) in store.job!.circuits"
        :key="circuit.id"
        class="wide"
        :path="`circuits.${index}.remarks`"
        :label="circuit.name"
      />
    </FieldGroup>
    <template #aside>
      <div class="side">
        <p v-if="failed" role="alert">{{ failed }}</p>
        <p v-if="!gaps" class="quiet">Looking at what is open…</p>
        <GapList v-else-if="gaps.length" :gaps="gaps" />
        <SignForm v-else :newest="papers[0]" @issued="list" />
        <IssuedPapers :papers="papers" />
      </div>
    </template>
  </StageColumns>
</template>

<style scoped>
.side {
  padding: 18px 20px;
  display: grid;
  gap: 26px;
}
</style>
