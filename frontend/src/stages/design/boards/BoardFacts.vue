<script setup lang="ts">
// The facts of one board. The origin's own are filled in at the survey; the others here, with what else they feed.
import { computed } from 'vue'

import type { Board } from '../../../api/types'
import ApplianceRows from '../../../shared/fields/ApplianceRows.vue'
import FrontRcdSelect from '../../../shared/fields/FrontRcdSelect.vue'
import JobField from '../../../shared/fields/JobField.vue'
import BoardMakerFields from '../../survey/stops/BoardMakerFields.vue'

const props = defineProps<{ board: Board; index: number; origin: boolean }>()

const path = computed(() => `boards.${props.index}`)
const surveyed = computed(() => props.index === 0 && props.origin)
const IP = ['IP24', 'IP44', 'IP54', 'IP55', 'IP65', 'IP66'].map((value) => ({ value, words: value }))
const YES_NO = [
  { value: true, words: 'yes' },
  { value: false, words: 'no' },
]
</script>

<template>
  <section class="facts" :aria-label="board.name">
    <p v-if="surveyed" class="quiet small">
      The rest is filled in at the
      <router-link :to="{ name: 'survey', params: { part: 'board' } }" class="link">survey</router-link>.
    </p>
    <div class="fields">
      <JobField :path="`${path}.name`" label="Name" />
      <JobField :path="`${path}.location`" label="Where it stands" />
      <JobField :path="`${path}.feeds_others`" label="Feeds other circuits too" kind="choice" choice="Seen" />
      <JobField :path="`${path}.others`" label="Which, such as freezer and lights" class="wide" />
      <template v-if="!surveyed">
        <JobField :path="`${path}.indoors`" label="Indoors" kind="choice" :items="YES_NO" />
        <JobField v-if="board.indoors === false" :path="`${path}.ip_code`" label="IP code" kind="choice" :items="IP" />
        <JobField :path="`${path}.enclosure`" label="Case" kind="choice" choice="Enclosure" />
        <JobField :path="`${path}.fitted_with_this_job`" label="New with this job" kind="choice" :items="YES_NO" />
        <FrontRcdSelect :place="index" label="RCD before its ways" />
        <JobField
          v-if="origin"
          :path="`${path}.surge_protection`"
          label="Surge protection"
          kind="choice"
          choice="Seen"
        />
        <template v-if="!board.fitted_with_this_job">
          <JobField :path="`${path}.make_up`" label="Made up of" kind="choice" choice="MakeUp" />
          <JobField :path="`${path}.spare_ways`" label="Spare ways" kind="number" />
          <JobField :path="`${path}.looked_inside`" label="Looked over, lid off" kind="choice" choice="Seen" />
          <JobField :path="`${path}.labels_complete`" label="Circuits labelled" kind="choice" choice="Seen" />
        </template>
        <JobField
          v-if="!origin"
          :path="`${path}.extraneous_parts`"
          label="Metal from the ground"
          kind="choice"
          choice="Seen"
        />
      </template>
    </div>
    <div v-if="!surveyed" class="makers"><BoardMakerFields :index="index" /></div>
    <div v-if="!origin" class="loads">
      <p v-if="board.other_loads.length" class="quiet small">It also feeds, counted with diversity:</p>
      <ApplianceRows :path="`${path}.other_loads`" add="Add a load" empty="It feeds nothing but the car." />
    </div>
  </section>
</template>

<style src="./tree.css" />
<style scoped>
.makers {
  display: grid;
  gap: 14px;
  padding-top: 12px;
}
.loads {
  max-width: 520px;
}
</style>
