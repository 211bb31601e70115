<script setup lang="ts">
// What waited on this device and the server would not take: each by what it is and why, until somebody lets it go.
import { computed } from 'vue'

import { dayAndTime } from '../shared/format'
import type { Entry } from './entries'
import { useOutbox } from './outbox'

const props = defineProps<{ job: number; names: (entry: Entry) => string }>()

const { refused, letGo } = useOutbox()
const own = computed(() => refused.value.filter((one) => one.job === props.job))
</script>

<template>
  <section v-if="own.length" class="refused" aria-label="Not taken">
    <p v-for="entry in own" :key="entry.key" role="alert">
      <b>Not saved: {{ names(entry) }}</b
      >, made {{ dayAndTime(entry.made_at) }}. {{ entry.refused }}
      <button type="button" class="link" @click="letGo(entry)">Remove it from this device</button>
    </p>
  </section>
</template>

<style scoped>
.refused {
  padding: 8px 20px;
  background: var(--sheet);
  border-bottom: 3px solid var(--falls_short);
}
</style>
