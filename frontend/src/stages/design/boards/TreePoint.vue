<script setup lang="ts">
// A charge point at the end of its circuit, with what opens inside it; its facts are filled in at the survey.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import GuardSymbol from '../../../run/GuardSymbol.vue'

const props = defineProps<{ index: number }>()

const store = useJob()
const point = computed(() => store.job!.charge_points[props.index]!)
const inside = computed(
  () =>
    store.evaluation?.guards
      .find((one) => one.charge_point === point.value.id)
      ?.guards.filter((one) => one.stands === 'unit') ?? [],
)
</script>

<template>
  <div class="point">
    <b>{{ point.name }}</b>
    <span v-for="guard in inside" :key="guard.field" class="inside figure">
      <svg width="26" height="26" viewBox="-13 -13 26 26" aria-hidden="true"><GuardSymbol :kind="guard.kind" /></svg>
      {{ guard.short }}
    </span>
    <span v-if="!inside.length" class="quiet small">nothing known to open inside</span>
    <router-link
      :to="{ name: 'survey', params: { part: 'charge_point' } }"
      class="link small"
      @click="store.point = point.id"
      >Its facts</router-link
    >
  </div>
</template>

<style scoped>
.point {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  border: 2px solid var(--ink);
  border-radius: 10px;
  background: var(--sheet);
  padding: 4px 12px;
  min-height: 44px;
}
.inside {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  font-size: 0.85rem;
}
</style>
