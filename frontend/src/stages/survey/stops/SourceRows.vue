<script setup lang="ts">
// The house's own sources: what each is, where it comes in, how much it feeds, and how it stands alone.
import { computed } from 'vue'

import type { Job } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import FieldGroup from '../../../shared/fields/FieldGroup.vue'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'

type Source = Job['supply']['sources'][number]

const store = useJob()
const sources = computed(() => store.job!.supply.sources)
const boards = computed(() => store.job!.boards.map((one) => ({ value: one.id, words: one.name })))
const at = (place: number, field: string) => `supply.sources.${place}.${field}`

function add(): void {
  const source: Source = { kind: 'solar', board: '', feeds_a: null, runs_alone: 'not_seen', own_earth: 'not_seen' }
  store.change('supply.sources', [...sources.value, source], 'a source added')
}
function remove(place: number): void {
  store.change(
    'supply.sources',
    sources.value.filter((_, each) => each !== place),
    'a source taken out',
  )
}
</script>

<template>
  <FieldGroup v-for="(one, place) in sources" :key="place" :title="`Source ${place + 1}`">
    <TapField :path="at(place, 'kind')" label="What is it?" choice="SourceKind" class="wide" />
    <JobField :path="at(place, 'board')" label="Comes in at" kind="choice" :items="boards" />
    <JobField :path="at(place, 'feeds_a')" label="Feeds at most, on a line" kind="number" unit="A" />
    <TapField
      :path="at(place, 'runs_alone')"
      label="Goes on when the network is gone?"
      choice="Seen"
      class="wide"
      hint="Some batteries and generators do."
    />
    <TapField
      v-if="one.runs_alone === 'yes'"
      :path="at(place, 'own_earth')"
      label="Has it an earth of its own then?"
      choice="Seen"
      class="wide"
    />
    <button type="button" class="link" @click="remove(place)">Take this source out</button>
  </FieldGroup>
  <button type="button" class="link add" @click="add">
    {{ sources.length ? 'Add another source' : 'Add the source' }}
  </button>
</template>

<style scoped>
.link {
  min-height: 44px;
  justify-self: start;
}
</style>
