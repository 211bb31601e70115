<script setup lang="ts">
// The job's instruments; the firm's own are offered, and what is entered here is offered to the next job.
import { computed, onMounted, ref } from 'vue'

import { answer, api, asProblem } from '../../api/client'
import type { Instrument } from '../../api/types'
import { useJob } from '../../job/useJob'
import InstrumentFields from './InstrumentFields.vue'
import InstrumentsInUse from './InstrumentsInUse.vue'

const store = useJob()
const firms = ref<Instrument[]>([])
const failed = ref('')
const named = ref('')
const own = computed(() => store.job!.testing.instruments)
const offered = computed(() => firms.value.filter((one) => !own.value.some((here) => here.name === one.name)))
const free = computed(() => named.value.trim().length > 1 && !own.value.some((one) => one.name === named.value.trim()))
const usedBy = (name: string) => store.job!.readings.some((one) => one.instrument === name)

onMounted(() =>
  told(async () => {
    firms.value = (await answer<{ instruments: Instrument[] }>(api.GET('/api/v1/instruments'))).instruments
  }),
)
async function told(act: () => Promise<void>): Promise<void> {
  failed.value = ''
  try {
    await act()
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
function add(instrument: Instrument): void {
  store.change('testing.instruments', [...own.value, instrument], `${instrument.name} added`)
}
function addNamed(): void {
  if (!free.value) return
  add({
    name: named.value.trim(),
    serial_number: '',
    calibration_due: null,
    checked_on: null,
    functions: [],
    accuracies: [],
  })
  named.value = ''
}
const takeOut = (name: string) =>
  store.change(
    'testing.instruments',
    own.value.filter((one) => one.name !== name),
    `${name} taken out`,
  )
/** What stands here is offered to the firm's next job. */
const keepForAll = () =>
  told(async () => {
    const others = firms.value.filter((one) => !own.value.some((here) => here.name === one.name))
    const body = { instruments: [...others, ...own.value] }
    firms.value = (await answer<{ instruments: Instrument[] }>(api.PUT('/api/v1/instruments', { body }))).instruments
  })
</script>

<template>
  <section class="register" aria-label="Instruments">
    <h3>Instruments</h3>
    <p v-if="!own.length" class="quiet">None yet. Every figure is kept with the instrument that took it.</p>
    <InstrumentFields
      v-for="(one, index) in own"
      :key="one.name"
      :index="index"
      :used="usedBy(one.name)"
      @take-out="takeOut(one.name)"
    />
    <form class="add" @submit.prevent="addNamed">
      <v-text-field v-model="named" label="Another one: the name on it" maxlength="60" hide-details />
      <v-btn type="submit" variant="outlined" :disabled="!free">Add it</v-btn>
    </form>
    <p v-if="offered.length" class="offered">
      The firm’s:
      <v-btn v-for="one in offered" :key="one.name" variant="outlined" size="small" @click="add(one)">{{
        one.name
      }}</v-btn>
    </p>
    <v-btn v-if="own.length" variant="text" @click="keepForAll">Offer these to every job</v-btn>
    <InstrumentsInUse />
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
  </section>
</template>

<style scoped>
.register {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.add,
.offered {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.add {
  width: min(100%, 460px);
}
.add :deep(.v-input) {
  flex: 1 1 200px;
}
</style>
