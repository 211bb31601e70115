<script setup lang="ts">
// One field of the job answered by a tap; several may be tapped where `many` is set. Saved as you go.
import { type ComponentPublicInstance, computed, useTemplateRef } from 'vue'

import { useJob } from '../../job/useJob'
import { usePlace } from '../fieldPlaces'
import { valueAt } from '../paths'
import TapGroup from './TapGroup.vue'
import { useCatalogue } from '../useCatalogue'

const props = defineProps<{
  path: string
  label: string
  choice?: string
  items?: { value: unknown; words: string }[]
  many?: boolean
  hint?: string
}>()
defineSlots<{ picture?(answer: { value: never }): unknown }>()

const store = useJob()
const root = useTemplateRef<ComponentPublicInstance>('root')
const { options } = useCatalogue()
const value = computed(() => valueAt(store.job, props.path))
const answers = computed<{ value: unknown; words: string }[]>(() => props.items ?? options(props.choice ?? ''))
const chosen = (one: unknown) => (props.many ? (value.value as unknown[]).includes(one) : value.value === one)

function tap(one: unknown): void {
  if (!props.many) return store.change(props.path, one)
  const now = value.value as unknown[]
  const kept = answers.value.map((answer) => answer.value).filter((each) => now.includes(each) !== (each === one))
  store.change(props.path, kept)
}
usePlace(
  () => props.path,
  () => props.label,
  () => root.value?.$el ?? null,
)
</script>

<template>
  <TapGroup
    ref="root"
    :label="label"
    :answers="answers"
    :chosen="chosen"
    :many="many"
    :hint="hint"
    :error="store.errorAt(path)"
    @tap="tap"
  >
    <template v-if="$slots.picture" #picture="answer"><slot name="picture" :value="answer.value" /></template>
  </TapGroup>
</template>
