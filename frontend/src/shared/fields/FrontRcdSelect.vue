<script setup lang="ts">
// The RCD before a board's ways, as one select.
import { computed } from 'vue'

import { sameRcd } from './rcds'
import { useFrontRcd } from './useFrontRcd'

const props = defineProps<{ place: number; label: string }>()

const { answers, now, answer } = useFrontRcd(() => props.place)
const items = computed(() => answers.value.map(({ words }, value) => ({ words, value })))
const chosen = computed(() => answers.value.findIndex((one) => sameRcd(one.value, now.value)))
</script>

<template>
  <v-select
    :label="label"
    :model-value="chosen"
    :items="items"
    item-title="words"
    item-value="value"
    @update:model-value="answer(answers[$event]!.value)"
  />
</template>
