<script setup lang="ts">
// One question for two fields: whether there is such an RCD, and of which type. Not looked up yet is an answer.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import { valueAt } from '../../../shared/paths'
import { type Rcd, sameRcd } from '../../../shared/fields/rcds'

const props = defineProps<{
  path: string
  seen: string
  label: string
  none: string
  items: { value: unknown; words: string }[]
}>()

const store = useJob()
const answers = computed(() => [
  { seen: 'not_seen', value: null, words: 'not looked up yet' },
  { seen: 'no', value: null, words: props.none },
  ...props.items.map((one) => ({ seen: 'yes', ...one })),
])
const choices = computed(() => answers.value.map(({ words }, value) => ({ value, words })))
const chosen = computed(() => {
  const value = valueAt(store.job, props.path)
  const seen = valueAt(store.job, props.seen)
  return answers.value.findIndex((one) => (value ? sameRcd(one.value, value) : one.value === null && one.seen === seen))
})

function answer(index: number): void {
  const one = answers.value[index]!
  // What is known of the neutral stays with another mark.
  const [now, mark] = [valueAt(store.job, props.path) as Rcd | null, one.value as Rcd | string | null]
  const kept = typeof mark === 'object' && mark && now ? { ...mark, switches_neutral: now.switches_neutral } : mark
  store.changeAll([
    { field: props.seen, value: one.seen },
    { field: props.path, value: kept },
  ])
}
</script>

<template>
  <v-select
    :label="label"
    :model-value="chosen"
    :items="choices"
    item-title="words"
    item-value="value"
    :error-messages="store.errorAt(path)"
    @update:model-value="answer"
  />
</template>
