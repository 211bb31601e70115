<script setup lang="ts">
// The reference method of a section: it follows from the place; another that the place allows may be chosen.
import { computed } from 'vue'

import JobField from '../../../shared/fields/JobField.vue'
import { useCatalogue } from '../../../shared/useCatalogue'
import { useLaidSection } from '../useLaidSection'

const props = defineProps<{ path: string; circuit: string; index: number }>()

const { words } = useCatalogue()
const { section } = useLaidSection(() => [props.circuit, props.index])
const methods = computed(() =>
  (section.value?.methods ?? []).map((one, place) => ({
    value: place ? one : null,
    words: words('ReferenceMethod', one),
  })),
)
</script>

<template>
  <JobField
    v-if="methods.length > 1"
    :path="`${path}.method`"
    label="Method, by its place"
    kind="choice"
    :items="methods"
  />
</template>
