<script setup lang="ts">
// Several answers or “none of them”, told apart from “nobody has looked yet”.
import { type ComponentPublicInstance, computed, useTemplateRef } from 'vue'

import { useJob } from '../../job/useJob'
import { usePlace } from '../fieldPlaces'
import { valueAt } from '../paths'
import { useCatalogue } from '../useCatalogue'
import TapGroup from './TapGroup.vue'

const props = defineProps<{ path: string; label: string; choice: string; none: string; hint?: string }>()

const NONE = 'none of them'
const store = useJob()
const root = useTemplateRef<ComponentPublicInstance>('root')
const { options } = useCatalogue()
const said = computed(() => valueAt(store.job, props.path) as string[] | null)
const answers = computed(() => [...options(props.choice), { value: NONE, words: props.none }])
const chosen = (one: unknown) => (one === NONE ? said.value?.length === 0 : !!said.value?.includes(one as string))

function tap(one: unknown): void {
  const now = said.value ?? []
  const kept = options(props.choice)
    .map((each) => each.value as string)
    .filter((each) => now.includes(each) !== (each === one))
  store.change(props.path, one === NONE ? [] : kept)
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
    many
    :hint="hint"
    :error="store.errorAt(path)"
    @tap="tap"
  />
</template>
