<script setup lang="ts">
// Where one stretch of the tails runs: from the cut-out or from the end of another stretch, to what.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import { useCatalogue } from '../../../shared/useCatalogue'
import { YES_NO } from './items'

const props = defineProps<{ index: number }>()

const store = useJob()
const { options } = useCatalogue()
const path = computed(() => `supply.tails.${props.index}`)
const one = computed(() => store.job!.supply.tails[props.index]!)
const ends = computed(() => options('TailsEnd'))
const wordsOf = (end: string) => ends.value.find((each) => each.value === end)?.words ?? ''
const from = computed(() => [
  { value: '', words: 'the cut-out' },
  ...store
    .job!.supply.tails.slice(0, props.index)
    .map((each, index) => ({ value: each.id, words: `stretch ${index + 1}, at the ${wordsOf(each.ends_at)}` })),
])
const boards = computed(() => {
  const fed = new Set(store.job!.circuits.map((each) => each.feeds))
  return [
    { value: '', words: 'none yet' },
    ...store.job!.boards.filter((each) => !fed.has(each.id)).map((each) => ({ value: each.id, words: each.name })),
  ]
})
</script>

<template>
  <div class="place">
    <JobField :path="`${path}.after`" label="From" kind="choice" :items="from" />
    <JobField :path="`${path}.ends_at`" label="To" kind="choice" choice="TailsEnd" />
    <JobField v-if="one.ends_at === 'board'" :path="`${path}.board`" label="Board" kind="choice" :items="boards" />
    <JobField :path="`${path}.fitted_with_this_job`" label="New with this job" kind="choice" :items="YES_NO" />
  </div>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 160px), 1fr));
  gap: 10px;
}
</style>
