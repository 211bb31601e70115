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
const names = reactive<Record<string, string>>({ design: '', construction: '', inspection_and_testing: '' })
const declared = ref(false)
const busy = ref(false)
const failed = ref('')
const nameOf = (part: string) => (onePerson.value ? person.name.value : names[part]!).trim()
const ready = computed(() => declared.value && !busy.value && PARTS.every(({ part }) => nameOf(part).length >= 2))

async function issue(): Promise<void> {
  failed.value = ''
  busy.value = true
  const { position, company, address, registration } = person
  const common = { position: position.value, company: company.value, address: address.value, registration: registration.value, signed_on: today() }
  const signatures: Signature[] = PARTS.map(({ part }) => ({ part, name: nameOf(part), ...common }))
  try {
    await store.issue(signatures)
    declared.value = false
    emit('issued')
  } catch (error) {
    failed.value = asProblem(error).detail
  }
  busy.value = false
}
</script>

<template>
  <form @submit.prevent="issue">
    <h2 class="headline">Ready to sign and issue</h2>
    <p v-if="newest" class="quiet">A new certificate supersedes {{ newest.number }}.</p>
    <v-checkbox v-model="onePerson" label="One person for all three parts" density="compact" hide-details />
    <v-text-field v-if="onePerson" v-model="person.name.value" label="Name" />
    <v-text-field v-for="one in onePerson ? [] : PARTS" :key="one.part" v-model="names[one.part]" :label="`${one.words}, signed by`" />
    <v-text-field v-model="person.position.value" label="Position" />
    <v-text-field v-model="person.company.value" label="Company" />
    <v-text-field v-model="person.address.value" label="Company's address" />
    <v-text-field v-model="person.registration.value" label="Registration number" />
    <v-checkbox v-model="declared" density="compact" hide-details label="Each part named was done with due skill and care and meets the standard, save the departures written here." />
    <p v-if="failed" role="alert" class="failed">{{ failed }}</p>
    <v-btn type="submit" color="ink" size="large" :disabled="!ready" :loading="busy">Sign and issue</v-btn>
    <p class="quiet small">Issuing freezes it: number, day, every figure. Later changes need a new certificate.</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
}
.small {
  font-size: 0.85rem;
}
.failed {
  border-left: 4px solid var(--falls_short);
  padding-left: 10px;
}
</style>
