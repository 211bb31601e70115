<script setup lang="ts">
// What can't be taken off a cable that was there already while its insulation is tested: asked before, below after.
import { computed } from 'vue'

import type { Step } from '../../api/types'
import { useJob } from '../../job/useJob'
import LookedField from '../../shared/fields/LookedField.vue'

const props = defineProps<{ step: Step; asking: boolean }>()

const store = useJob()
const index = computed(() =>
  props.step.function === 'insulation'
    ? store.job!.circuits.findIndex((one) => one.id === props.step.circuit && !one.fitted_with_this_job)
    : -1,
)
const unasked = computed(() => store.job!.circuits[index.value]?.stays_connected === null)
</script>

<template>
  <LookedField
    v-if="index >= 0 && unasked === asking"
    :path="`circuits.${index}.stays_connected`"
    label="What can’t be taken off this cable?"
    choice="StaysConnected"
    none="nothing stays"
  />
</template>
