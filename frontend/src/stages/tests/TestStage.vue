<script setup lang="ts">
// Dead or live tests: one step at a time, the steps beside it, whether the readings agree at the right.
import { computed, ref, watch } from 'vue'

import ChecksLedger from '../../checks/ChecksLedger.vue'
import { useJob } from '../../job/useJob'
import StepList from './StepList.vue'
import StepPanel from './StepPanel.vue'

const props = defineProps<{ stage: 'dead' | 'live' }>()
const emit = defineEmits<{ at: [where: string] }>()

const store = useJob()
const steps = computed(() => (store.evaluation?.steps ?? []).filter((step) => step.stage === props.stage))
const current = ref(0)
const step = computed(() => steps.value[current.value])

function firstOpen(): number {
  const open = steps.value.findIndex((one) => one.reading === null && one.required)
  return open < 0 ? 0 : open
}
watch(
  () => [props.stage, store.id],
  () => (current.value = firstOpen()),
  { immediate: true },
)
watch(
  () => step.value?.where ?? '',
  (where) => emit('at', where),
  { immediate: true },
)

function next(): void {
  const after = steps.value.findIndex((one, index) => index > current.value && one.reading === null)
  if (after >= 0) current.value = after
  else if (current.value < steps.value.length - 1) current.value += 1
}
</script>

<template>
  <div v-if="step" class="workbench">
    <StepList :steps="steps" :current="current" :stage="stage" @choose="current = $event" />
    <StepPanel
      :key="`${step.step}/${step.subject}`"
      :step="step"
      :number="current + 1"
      :count="steps.length"
      @kept="next"
    />
    <aside>
      <ChecksLedger
        :stages="[stage]"
        title="Do the readings agree?"
        :filter="(one) => one.topics.includes('agreement')"
      />
      <ChecksLedger :stages="[stage]" title="Against their limits" :filter="(one) => one.topics.includes('reading')" />
    </aside>
  </div>
  <p v-else class="none">Nothing to test yet: no circuit feeds a charge point.</p>
</template>

<style scoped>
.none {
  padding: 30px 24px;
}
</style>
