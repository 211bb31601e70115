<script setup lang="ts">
// One board of the chain. The origin's board is filled in at the survey; the others here, with what else they feed.
import { computed } from 'vue'

import type { Board } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import ApplianceRows from '../../../shared/fields/ApplianceRows.vue'
import FrontRcdSelect from '../../../shared/fields/FrontRcdSelect.vue'
import JobField from '../../../shared/fields/JobField.vue'

const props = defineProps<{ board: Board; index: number; origin: boolean }>()

const store = useJob()
const path = computed(() => `boards.${props.index}`)
const pme = computed(() => store.job!.supply.earthing !== 'tt')
const YES_NO = [
  { value: true, words: 'yes' },
  { value: false, words: 'no' },
]
</script>

<template>
  <li class="card">
    <h2>
      {{ board.name }} <span class="quiet">{{ origin ? 'at the origin' : board.location }}</span>
    </h2>
    <div v-if="!origin || board.fitted_with_this_job" class="fields">
      <JobField :path="`${path}.name`" label="Name" />
      <JobField :path="`${path}.location`" label="Where it stands" />
      <JobField :path="`${path}.indoors`" label="Indoors" kind="choice" :items="YES_NO" />
      <JobField :path="`${path}.enclosure`" label="Case" kind="choice" choice="Enclosure" />
      <JobField :path="`${path}.fitted_with_this_job`" label="New with this job" kind="choice" :items="YES_NO" />
      <FrontRcdSelect v-if="!origin" :place="index" label="RCD before its ways" />
      <template v-if="!board.fitted_with_this_job">
        <JobField :path="`${path}.make_up`" label="Made up of" kind="choice" choice="MakeUp" />
        <JobField :path="`${path}.spare_ways`" label="Spare ways" kind="number" />
        <JobField :path="`${path}.looked_inside`" label="Looked over, lid off" kind="choice" choice="Seen" />
        <JobField :path="`${path}.labels_complete`" label="Circuits labelled" kind="choice" choice="Seen" />
      </template>
      <JobField
        v-if="!origin && pme"
        :path="`${path}.extraneous_parts`"
        label="Metal pipes or steel in the ground there"
        kind="choice"
        choice="Seen"
      />
    </div>
    <p v-else class="quiet small">
      Filled in at the
      <router-link :to="{ name: 'survey', params: { part: 'board' } }" class="link">survey</router-link>.
    </p>
    <div v-if="!origin" class="loads">
      <p v-if="board.other_loads.length" class="quiet small">It also feeds, counted with diversity:</p>
      <ApplianceRows :path="`${path}.other_loads`" add="Add a load" empty="It feeds nothing but the car." />
    </div>
  </li>
</template>

<style scoped>
.card {
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 12px 14px;
}
h2 {
  font-size: 1rem;
}
h2 .quiet {
  font-weight: 400;
  font-size: 0.88rem;
}
.loads {
  padding-top: 12px;
  max-width: 520px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 190px), 1fr));
  gap: 10px;
  padding-top: 10px;
}
</style>
