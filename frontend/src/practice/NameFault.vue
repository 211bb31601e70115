<script setup lang="ts">
// The fault and its place, or that nothing is wrong: this ends the exercise.
import { computed, ref } from 'vue'

import type { PracticeAct, PracticeState } from '../api/types'

type Named = Extract<PracticeAct, { kind: 'name' }>

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ state: PracticeState }>()
const emit = defineEmits<{ name: [act: PracticeAct] }>()

const SOUND = 'sound'
const fault = ref<string | null>(null)
const place = ref<string | null>(null)
const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
const faults = computed(() => [
  { value: SOUND, title: 'Nothing is wrong' },
  ...props.state.faults.map((one) => ({ value: one.key as string, title: capital(one.words) })),
])
const places = computed(() => props.state.places.map((one) => ({ value: one.key, title: capital(one.words) })))
const ready = computed(() => fault.value !== null && (fault.value === SOUND || place.value !== null))

function name(): void {
  open.value = false
  const sound = fault.value === SOUND
  emit('name', {
    kind: 'name',
    fault: sound ? null : (fault.value as Named['fault']),
    place: sound ? '' : (place.value ?? ''),
  })
}
</script>

<template>
  <v-dialog v-model="open" max-width="560">
    <v-card class="sheet">
      <form class="naming" @submit.prevent="name">
        <h2 class="headline">What is wrong, and where?</h2>
        <v-select v-model="fault" :items="faults" label="The fault" />
        <v-select v-if="fault !== SOUND" v-model="place" :items="places" label="Where it sits" />
        <p class="small quiet">This ends the exercise.</p>
        <div class="keys">
          <v-btn type="submit" color="ink" :disabled="!ready">Name it</v-btn>
          <v-btn variant="text" @click="open = false">Back to the tests</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.naming {
  display: grid;
  gap: 14px;
}
.keys {
  display: flex;
  gap: 10px;
}
</style>
