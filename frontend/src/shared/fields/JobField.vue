<script setup lang="ts">
// One field of the job: text, figure with its unit, or a choice. Saved as you go; its own error beneath it.
import { type ComponentPublicInstance, computed, ref, useTemplateRef, watch } from 'vue'

import { type FieldChange, useJob } from '../../job/useJob'
import { usePlace } from '../fieldPlaces'
import { typedNumber } from '../format'
import { valueAt } from '../paths'
import { isUnseen } from '../unseen'
import { useCatalogue } from '../useCatalogue'

const props = defineProps<{
  path: string
  label: string
  kind?: 'text' | 'number' | 'choice' | 'choices' | 'paragraph'
  unit?: string
  choice?: string
  items?: { value: unknown; words: string }[]
  hint?: string
  /** What another choice takes with it. */
  also?: FieldChange[]
}>()

const store = useJob()
const root = useTemplateRef<ComponentPublicInstance>('root')
const { options } = useCatalogue()
const value = computed(() => (isUnseen(store.job, props.path) ? null : valueAt(store.job, props.path)))
const error = computed(() => store.errorAt(props.path))
const choices = computed(() => props.items ?? options(props.choice ?? ''))

// What is typed stays as typed; only its value goes to the job.
const typed = ref('')
watch(
  value,
  (now) => {
    if (typedNumber(typed.value) !== now) typed.value = now === null || now === undefined ? '' : String(now)
  },
  { immediate: true },
)
function onNumber(text: string): void {
  typed.value = text
  store.change(props.path, typedNumber(text))
}
usePlace(
  () => props.path,
  () => props.label,
  () => root.value?.$el ?? null,
)
</script>

<template>
  <v-select
    ref="root"
    v-if="kind === 'choice' || kind === 'choices'"
    :label="label"
    :multiple="kind === 'choices'"
    :model-value="value"
    :items="choices"
    item-title="words"
    item-value="value"
    :error-messages="error"
    :hint="hint"
    @update:model-value="store.changeAll([{ field: path, value: $event }, ...(also ?? [])])"
  />
  <v-textarea
    ref="root"
    v-else-if="kind === 'paragraph'"
    :label="label"
    :model-value="value"
    :error-messages="error"
    :hint="hint"
    @update:model-value="store.change(path, $event)"
  />
  <v-text-field
    ref="root"
    v-else-if="kind === 'number'"
    :label="label"
    :model-value="typed"
    :suffix="unit"
    :error-messages="error"
    :hint="hint"
    inputmode="decimal"
    class="figure-field"
    autocomplete="off"
    @update:model-value="onNumber"
  />
  <v-text-field
    ref="root"
    v-else
    :label="label"
    :model-value="value"
    :error-messages="error"
    :hint="hint"
    autocomplete="off"
    @update:model-value="store.change(path, $event)"
  />
</template>

<style scoped>
.figure-field :deep(input) {
  font-family: var(--figures);
}
</style>
