<script setup lang="ts">
// The way that a step measures along, from the street to the car: asked for when somebody wants to see it.
import { defineAsyncComponent, ref, watch } from 'vue'

import { answer, api, asProblem } from '../../api/client'
import type { Step, StepDrawing } from '../../api/types'
import { useJob } from '../../job/useJob'

const HouseDrawing = defineAsyncComponent(() => import('../../practice/HouseDrawing.vue'))

const props = defineProps<{ step: Step }>()

const store = useJob()
const open = ref(false)
const drawing = ref<StepDrawing>()
const failed = ref('')
let asked = 0

async function draw(): Promise<void> {
  failed.value = ''
  const turn = ++asked
  const point = store.job!.charge_points[store.pointIndex]
  if (!point) return
  const body = { job: store.judged!, charge_point: point.id, step: props.step.step, subject: props.step.subject }
  try {
    const drawn = await answer<StepDrawing>(api.POST('/api/v1/tests/drawing', { body }))
    // A late answer about a step that was left is no drawing of this one.
    if (turn === asked) drawing.value = drawn
  } catch (error) {
    if (turn === asked) failed.value = asProblem(error).detail
  }
}
watch([open, () => props.step.step, () => props.step.subject], () => {
  asked++
  drawing.value = undefined
  if (open.value) void draw()
})
</script>

<template>
  <div class="way">
    <button type="button" class="link" :aria-expanded="open" @click="open = !open">
      {{ open ? 'Fold the way it measures' : 'Show the way it measures' }}
    </button>
    <p v-if="open && failed" class="failed" role="alert">{{ failed }}</p>
    <HouseDrawing
      v-if="open && drawing"
      :scene="drawing.scene"
      :circuit="drawing.circuit"
      :leads="drawing.leads"
      :linked="drawing.linked"
      :flow="drawing.flow"
      :set-words="step.range"
      active=""
      fixed
    />
  </div>
</template>
