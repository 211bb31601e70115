<script setup lang="ts">
// An exercise for others: a fault of a size in this house, behind a link that tells neither.
import { computed, onMounted, ref } from 'vue'

import { answer, api } from '../api/client'
import type { PossibleFaults, PracticeLink } from '../api/types'

const props = defineProps<{ job: number; chargePoint: string | null; by: string }>()
import { useTold } from './useTold'

const SIZES = [
  { value: 0, title: 'just big enough to matter' },
  { value: 0.4, title: 'middling' },
  { value: 1, title: 'big' },
]
const faults = ref<PossibleFaults['faults']>([])
const fault = ref<string>()
const size = ref(0.4)
const made = ref<PracticeLink>()
const { failed, told } = useTold()
const copied = ref(false)
const choices = computed(() => faults.value.map((one) => ({ value: one.key, title: one.words })))
const address = computed(() => `${window.location.origin}/practice?link=${made.value!.link}`)

onMounted(async () => {
  const query = { job_id: props.job, charge_point: props.chargePoint }
  const found = await told(() => answer<PossibleFaults>(api.GET('/api/v1/practice/faults', { params: { query } })))
  faults.value = found?.faults ?? []
})
async function make(): Promise<void> {
  const body = {
    by: props.by,
    job_id: props.job,
    charge_point: props.chargePoint,
    fault: fault.value!,
    size: size.value,
  }
  copied.value = false
  made.value = await told(() => answer<PracticeLink>(api.POST('/api/v1/practice/links', { body })))
}
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(address.value)
  copied.value = true
}
</script>

<template>
  <details v-if="faults.length || failed" class="make">
    <summary>Make an exercise for others</summary>
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
    <div class="choose">
      <v-select v-model="fault" :items="choices" label="What is wrong" />
      <v-select v-model="size" :items="SIZES" label="How big" />
      <v-btn variant="outlined" :disabled="!fault" @click="make">Make the link</v-btn>
    </div>
    <p v-if="made" class="link-made" role="status">
      <span class="figure address">{{ address }}</span>
      <v-btn variant="outlined" size="small" @click="copy">{{ copied ? 'Copied' : 'Copy' }}</v-btn>
    </p>
  </details>
</template>

<style scoped>
.make {
  width: 100%;
}
summary {
  min-height: 44px;
  align-content: center;
  cursor: pointer;
  font-weight: 700;
}
.choose {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
}
.link-made {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  padding-top: 10px;
}
.address {
  overflow-wrap: anywhere;
}
@media (max-width: 839px) {
  .choose {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
