<script setup lang="ts">
// Signing and issuing in one act: one person for all three parts, or each part its own name.
import { computed, reactive, ref } from 'vue'

import { asProblem } from '../../api/client'
import type { Paper, Signature } from '../../api/types'
import { useJob } from '../../job/useJob'
import { today } from '../../shared/format'
import { usePerson } from '../../shared/usePerson'

defineProps<{ newest?: Paper }>()
const emit = defineEmits<{ issued: [] }>()

const PARTS = [
  { part: 'design', words: 'Design' },
  { part: 'construction', words: 'Construction' },
  { part: 'inspection_and_testing', words: 'Inspection and testing' },
] as const

const store = useJob()
const person = usePerson()
const onePerson = ref(true)
const blank = () => ({ name: '', position: '', company: '', address: '', registration: '' })
const others = reactive({ design: blank(), construction: blank(), inspection_and_testing: blank() })
const declared = ref(false)
const busy = ref(false)
const failed = ref('')
const progress = ref('')
const me = computed(() => ({
  name: person.name.value,
  position: person.position.value,
  company: person.company.value,
  address: person.address.value,
  registration: person.registration.value,
}))
const signerOf = (part: (typeof PARTS)[number]['part']) => (onePerson.value ? me.value : others[part])
const ready = computed(
  () => declared.value && !busy.value && PARTS.every(({ part }) => signerOf(part).name.trim().length >= 2),
)

async function issue(): Promise<void> {
  failed.value = ''
  busy.value = true
  const signatures: Signature[] = PARTS.map(({ part }) => ({ part, ...signerOf(part), signed_on: today() }))
  try {
    await store.issue(signatures, (state) => {
      progress.value = state.ahead ? `Waiting: ${state.ahead} before it…` : 'Being made…'
    })
    declared.value = false
    emit('issued')
  } catch (error) {
    failed.value = asProblem(error).detail
  }
  busy.value = false
  progress.value = ''
}
</script>

<template>
  <form @submit.prevent="issue">
    <h2 class="headline">Ready to sign and issue</h2>
    <p v-if="newest" class="quiet">A new certificate supersedes {{ newest.number }}.</p>
    <v-checkbox v-model="onePerson" label="One person for all three parts" density="compact" hide-details />
    <template v-if="onePerson">
      <v-text-field v-model="person.name.value" label="Name" hint="Printed as typed" persistent-hint />
      <v-text-field v-model="person.position.value" label="Position" />
      <v-text-field v-model="person.company.value" label="Company" />
      <v-text-field v-model="person.address.value" label="Company's address" />
      <v-text-field v-model="person.registration.value" label="Registration number" />
    </template>
    <fieldset v-for="one in onePerson ? [] : PARTS" :key="one.part">
      <legend>{{ one.words }}</legend>
      <v-text-field v-model="others[one.part].name" :label="`${one.words}: name`" />
      <v-text-field v-model="others[one.part].position" label="Position" />
      <v-text-field v-model="others[one.part].company" label="Company" />
      <v-text-field v-model="others[one.part].address" label="Company's address" />
      <v-text-field v-model="others[one.part].registration" label="Registration number" />
    </fieldset>
    <v-checkbox
      v-model="declared"
      density="compact"
      hide-details
      label="Each part named was done with due skill and care and meets the standard, save the departures written here."
    />
    <p v-if="failed" role="alert" class="failed">{{ failed }}</p>
    <v-btn type="submit" color="ink" size="large" :disabled="!ready" :loading="busy">Sign and issue</v-btn>
    <p v-if="progress" role="status">{{ progress }}</p>
    <p class="quiet small">Issuing freezes it: number, day, every figure. Later changes need a new certificate.</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
}
fieldset {
  display: grid;
  gap: 10px;
}
legend {
  font-weight: 700;
  padding-bottom: 6px;
}
.failed {
  border-left: 4px solid var(--falls_short);
  padding-left: 10px;
}
</style>
