<script setup lang="ts">
// A day of the job, by the browser's own calendar.
import { type ComponentPublicInstance, computed, useTemplateRef } from 'vue'

import { useJob } from '../../job/useJob'
import { usePlace } from '../fieldPlaces'
import { valueAt } from '../paths'

const props = defineProps<{ path: string; label: string }>()
const store = useJob()
const root = useTemplateRef<ComponentPublicInstance>('root')
const day = computed(() => (valueAt(store.job, props.path) as string | null) ?? '')
usePlace(
  () => props.path,
  () => props.label,
  () => root.value?.$el ?? null,
)
</script>

<template>
  <v-text-field
    ref="root"
    type="date"
    :label="label"
    :model-value="day"
    :error-messages="store.errorAt(path)"
    @update:model-value="store.change(path, $event || null)"
  />
</template>
