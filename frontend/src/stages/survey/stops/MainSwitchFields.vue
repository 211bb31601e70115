<script setup lang="ts">
// The main switch, where it stands in the incomer of the first board; one that is not there yet is put there.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import { useGuardActs } from '../../../shared/useGuardActs'

const store = useJob()
const { add } = useGuardActs()
const place = computed(() => store.job!.boards[0]?.incomer.findIndex((one) => one.kind === 'switch') ?? -1)
const at = (field: string) => `boards.0.incomer.${place.value}.${field}`
const POLES = [1, 2, 3, 4].map((value) => ({ value, words: `${value}` }))
const VOLTS = [230, 400].map((value) => ({ value, words: `${value} V` }))
</script>

<template>
  <template v-if="place >= 0">
    <JobField :path="at('rating_a')" label="Main switch" kind="number" unit="A" />
    <JobField :path="at('poles')" label="Poles it opens" kind="choice" :items="POLES" />
    <JobField :path="at('voltage_v')" label="Its voltage" kind="choice" :items="VOLTS" />
    <JobField :path="at('standard')" label="Its standard, as marked" />
    <JobField :path="at('location')" label="Main switch, where" />
  </template>
  <button v-else type="button" class="link" @click="add('boards.0.incomer', 'switch', true)">
    Add the main switch
  </button>
</template>
