<script setup lang="ts">
// A day of the job, by the browser's own calendar.
import { computed } from 'vue'

import { useJob } from '../../job/useJob'
import { valueAt } from '../paths'

const props = defineProps<{ path: string; label: string }>()
const store = useJob()
const day = computed(() => (valueAt(store.job, props.path) as string | null) ?? '')
</script>

<template>
  <v-text-field
    type="date"
    :label="label"
    :model-value="day"
    :error-messages="store.errorAt(path)"
    @update:model-value="store.change(path, $event || null)"
  />
</template>
