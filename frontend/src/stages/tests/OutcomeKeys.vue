<script setup lang="ts">
// How a step ends, by mouse or key; on a desktop the figure's own field takes the keys.
import { onMounted, useTemplateRef } from 'vue'

import type { Step } from '../../api/types'

const props = defineProps<{ kind: Step['kind']; ready: boolean; signs: string; set: boolean }>()
defineEmits<{ keep: []; over: []; right: []; wrong: []; cannot: []; fromSet: [] }>()

// Where no figure is typed the first button takes the key.
const keys = useTemplateRef<HTMLElement>('keys')
onMounted(() => {
  if (props.kind === 'confirm' || props.kind === 'hold') keys.value?.querySelector('button')?.focus()
})
</script>

<template>
  <div ref="keys" class="keys">
    <template v-if="kind === 'figure' || kind === 'either'">
      <v-btn color="ink" :disabled="!ready" @click="$emit('keep')">Keep and go on</v-btn><kbd>Enter</kbd>
      <v-btn v-if="kind === 'either'" variant="outlined" @click="$emit('right')">Right, no figure</v-btn>
      <v-btn v-else variant="text" :disabled="!ready" @click="$emit('over')">Over range</v-btn
      ><kbd v-if="kind === 'figure'">&gt;</kbd>
    </template>
    <v-btn v-else-if="kind === 'hold'" color="ink" @click="$emit('right')">{{ signs }}</v-btn>
    <template v-else>
      <v-btn color="ink" @click="$emit('right')">Right</v-btn>
    </template>
    <v-btn v-if="kind === 'confirm' || kind === 'either'" variant="outlined" @click="$emit('wrong')">Wrong</v-btn>
    <template v-if="set && kind !== 'hold'">
      <v-btn variant="text" @click="$emit('fromSet')">From the test set</v-btn><kbd v-if="kind === 'figure'">T</kbd>
    </template>
    <template v-if="kind !== 'hold'">
      <v-btn variant="text" @click="$emit('cannot')">Could not test</v-btn><kbd v-if="kind === 'figure'">L</kbd>
    </template>
  </div>
</template>

<style scoped>
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
</style>
