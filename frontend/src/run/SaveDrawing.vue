<script setup lang="ts">
// The run as an SVG file: the same drawing that stands in the certificate.
import { ref } from 'vue'

import { asProblem, download } from '../api/client'
import { useJob } from '../job/useJob'

const props = defineProps<{ chargePoint: string }>()

const store = useJob()
const failed = ref('')

async function save(): Promise<void> {
  failed.value = ''
  try {
    await download('/api/v1/run.svg', { job: store.judged, charge_point: props.chargePoint }, 'run.svg')
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
</script>

<template>
  <button class="link" type="button" aria-label="Save the drawing as SVG" @click="save">SVG</button>
  <span v-if="failed" class="small" role="alert">{{ failed }}</span>
</template>
