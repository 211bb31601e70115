<script setup lang="ts">
// Bringing in a job file: sent as it is; the server reads it and says what is wrong with it.
import { useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'

import { answer, api, asProblem } from '../api/client'
import type { JobState } from '../api/types'

const emit = defineEmits<{ failed: [detail: string] }>()
const input = useTemplateRef<HTMLInputElement>('input')
const router = useRouter()

async function bring(): Promise<void> {
  const file = input.value?.files?.[0]
  if (!file) return
  try {
    const text = await file.text()
    const body = text as never
    const state = await answer<JobState>(
      api.POST('/api/v1/jobs', {
        body,
        bodySerializer: (sent) => sent as never,
        headers: { 'Content-Type': 'application/json' },
      }),
    )
    await router.push({ name: 'design', params: { id: state.id } })
  } catch (error) {
    emit('failed', `${file.name}: ${asProblem(error).detail}`)
  }
  // Where it went well the page is left by now.
  if (input.value) input.value.value = ''
}
</script>

<template>
  <div>
    <input ref="input" type="file" accept=".json,application/json" hidden data-testid="job-file" @change="bring" />
    <v-btn variant="outlined" @click="input?.click()">Bring in a job file</v-btn>
  </div>
</template>
