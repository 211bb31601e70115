<script setup lang="ts">
// Who tests, and with which instrument of the register: kept in this browser, written into every reading.
import { computed, watch } from 'vue'

import type { Step } from '../../api/types'
import { useJob } from '../../job/useJob'
import { usePerson } from '../../shared/usePerson'
import TapGroup from '../../shared/fields/TapGroup.vue'
import ReadingPhoto from './ReadingPhoto.vue'
import { useBeside } from './useBeside'
import { useInstrument } from './useInstrument'

const props = defineProps<{ step: Step }>()
const emit = defineEmits<{ setUp: []; file: [] }>()
const photo = defineModel<string>('photo', { required: true })

const store = useJob()
const { name } = usePerson()
const { others, readBy } = useBeside()
/** Who calls a figure out from the other end; it is written down here, under both names. */
const away = computed(() => {
  const found = [...new Set(others.value.map((one) => one.name))].filter((one) => one !== name.value.trim())
  return found.length ? [{ value: '', words: 'me' }, ...found.map((one) => ({ value: one, words: one }))] : []
})
const { instrument } = useInstrument(() => props.step)
const names = computed(() => store.job!.testing.instruments.map((one) => one.name))
watch(
  names,
  (now) => {
    if (instrument.value && !now.includes(instrument.value)) instrument.value = ''
  },
  { immediate: true },
)
</script>

<template>
  <div class="tester">
    <v-text-field v-model="name" label="Tested by" maxlength="200" autocomplete="name" />
    <TapGroup
      v-if="away.length && step.kind !== 'hold'"
      label="Read by"
      :answers="away"
      :chosen="(one) => one === readBy"
      @tap="readBy = $event as string"
    />
    <v-select v-if="names.length" v-model="instrument" label="Instrument" :items="names" />
    <v-btn v-else variant="outlined" @click="emit('setUp')">Enter your instruments</v-btn>
    <ReadingPhoto v-if="step.kind !== 'hold'" v-model="photo" />
    <button type="button" class="link" @click="emit('file')">Readings from a file</button>
    <button type="button" class="link" @click="emit('setUp')">Instruments, schools, temperature</button>
  </div>
</template>

<style scoped>
.tester {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 10px;
  align-items: center;
  max-width: 720px;
  margin-top: 12px;
}
</style>
