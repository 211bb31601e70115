<script setup lang="ts">
// What a circuit of sockets, lights or anything else feeds, its route, and taking it out.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import ApplianceRows from '../../../shared/fields/ApplianceRows.vue'
import RouteEditor from '../route/RouteEditor.vue'
import { useOpenPart } from './useTree'

const props = defineProps<{ index: number }>()

const store = useJob()
const { open } = useOpenPart()
const circuit = computed(() => store.job!.circuits[props.index]!)

function remove(): void {
  const gone = circuit.value
  open.value = ''
  store.apply(`${gone.name} taken out`, [
    { field: 'circuits', value: store.job!.circuits.filter((one) => one !== gone) },
  ])
}
</script>

<template>
  <section class="facts" :aria-label="`What ${circuit.name} feeds`">
    <ApplianceRows
      :path="`circuits.${index}.loads`"
      add="Add what it feeds"
      empty="Say what it feeds: sockets, lights or something else."
    />
    <RouteEditor :circuit-index="index" :title="`The route of ${circuit.name}`" />
    <button type="button" class="link" @click="remove">Take this circuit out</button>
  </section>
</template>

<style src="./tree.css" />
