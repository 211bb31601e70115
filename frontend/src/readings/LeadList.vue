<script setup lang="ts">
// Which lead goes to which terminal, as lines: the drawing's words where it has no room.
import { computed } from 'vue'

import type { Step } from '../api/types'

const props = defineProps<{ step: Step; moved: string[] }>()

const joined = computed(
  () => props.step.leads.length > 1 && props.step.leads.every((one) => one.at.every((at) => at === 'lead')),
)
</script>

<template>
  <p v-if="joined">
    <b class="figure">{{ step.leads.map((lead) => lead.jack).join(' – ') }}</b> ends joined
  </p>
  <ul v-else-if="step.leads.length" class="leads" aria-label="Leads">
    <li v-for="lead in step.leads" :key="lead.jack" :class="{ stays: !moved.includes(lead.jack) }">
      <b class="figure" :class="`jack-${lead.jack}`">{{ lead.jack }}</b> {{ lead.terminal }}
      <span v-if="!moved.includes(lead.jack)" class="small">stays</span>
    </li>
  </ul>
</template>

<style scoped>
.leads {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 3px 16px;
}
li {
  display: flex;
  gap: 8px;
  align-items: baseline;
  font-weight: 700;
}
.stays {
  font-weight: 400;
  color: var(--quiet);
}
b {
  min-width: 1.5em;
  border-bottom: 4px solid var(--ink);
  text-align: center;
}
.jack-L {
  border-color: var(--conductor-l);
}
.jack-N {
  border-color: var(--conductor-n);
}
.jack-E {
  border-color: var(--conductor-e);
}
</style>
