<script setup lang="ts">
// A box on the way of a circuit: its name, where it hangs, and after which section of the route.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TreeActs from './TreeActs.vue'

const props = defineProps<{ circuitIndex: number; index: number }>()

const store = useJob()
const path = computed(() => `circuits.${props.circuitIndex}.boxes.${props.index}`)
const circuit = computed(() => store.job!.circuits[props.circuitIndex]!)
const box = computed(() => circuit.value.boxes[props.index]!)
const places = computed(() => [
  { value: 0, words: 'at the board' },
  ...circuit.value.route.slice(0, -1).map((_, index) => ({ value: index + 1, words: `after section ${index + 1}` })),
  { value: null, words: 'at the end, before the unit' },
])
const FITTED = [
  { value: true, words: 'new with this job' },
  { value: false, words: 'there already' },
]
</script>

<template>
  <section class="facts" aria-label="Box on the way">
    <div class="fields">
      <JobField :path="`${path}.name`" label="Name" />
      <JobField :path="`${path}.location`" label="Where it hangs" />
      <JobField :path="`${path}.after_section`" label="On the way" kind="choice" :items="places" />
      <JobField :path="`${path}.fitted_with_this_job`" label="It is" kind="choice" :items="FITTED" />
    </div>
    <TreeActs :node="box.id" :name="box.name" />
  </section>
</template>

<style src="./tree.css" />
