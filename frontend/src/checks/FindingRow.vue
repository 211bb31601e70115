<script setup lang="ts">
// One finding: verdict, figure against limit, how much of the limit is used; its working on demand.
import { computed } from 'vue'

import type { Finding } from '../api/types'
import { fixed } from '../shared/format'
import VerdictMark from '../shared/VerdictMark.vue'
import DecisionForm from './DecisionForm.vue'
import RemedyList from './RemedyList.vue'
import WorkingLines from './WorkingLines.vue'

const props = defineProps<{ finding: Finding; open: boolean }>()
defineEmits<{ toggle: [] }>()

const value = computed(() =>
  props.finding.value === null ? '' : `${fixed(props.finding.value, props.finding.decimals)} ${props.finding.unit}`,
)
const limit = computed(() =>
  props.finding.limit === null
    ? ''
    : `${props.finding.at_least ? 'at least' : 'at most'} ${fixed(props.finding.limit, props.finding.decimals)}`,
)
// How full the bar is follows from the core's margin, not from a sum made here.
const used = computed(() =>
  props.finding.margin === null ? null : Math.min(1, Math.max(0.02, 1 - props.finding.margin)),
)
const open = computed(() => props.finding.is_open)
</script>

<template>
  <li class="row">
    <button type="button" :aria-expanded="props.open" @click="$emit('toggle')">
      <span class="words">
        <VerdictMark :verdict="finding.verdict" :waits-for="finding.waits_for" />&ensp;<span class="title">{{
          finding.title
        }}</span>
        <span v-if="finding.whose" class="quiet whose">{{ finding.whose }}</span>
      </span>
      <span class="figures figure"
        ><span>{{ value }}</span
        ><span class="quiet">{{ limit }}</span></span
      >
      <span v-if="used !== null && !finding.at_least" class="bar" aria-hidden="true"
        ><span class="used glide" :style="{ width: `${used * 100}%`, background: `var(--${finding.verdict})` }"
      /></span>
      <span v-if="open" class="detail quiet">{{ finding.detail }}</span>
    </button>
    <div v-if="props.open" class="inside">
      <p v-if="!open" class="quiet">{{ finding.detail }}</p>
      <p v-if="finding.fear"><b>What can happen:</b> {{ finding.fear }}</p>
      <p v-if="finding.remedy"><b>To mend:</b> {{ finding.remedy }}</p>
      <p v-if="finding.school">{{ finding.school }}</p>
      <WorkingLines :lines="finding.working" />
      <p class="quiet clause">{{ finding.clause }}</p>
    </div>
    <RemedyList
      v-if="finding.verdict === 'falls_short' && finding.stage !== 'dead'"
      :key="finding.detail"
      :finding="finding"
    />
    <template v-if="finding.verdict === 'your_call'">
      <DecisionForm v-if="props.open" :finding="finding" />
      <button v-else-if="open" type="button" class="link" @click="$emit('toggle')">Say why</button>
    </template>
  </li>
</template>

<style scoped>
.row {
  border-top: 1px solid var(--line);
  padding: 4px 0;
}
.row > button:first-child {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  font: inherit;
  color: inherit;
  cursor: pointer;
  padding: 7px 0;
  min-height: 44px;
  align-items: start;
}
.title {
  font-weight: 700;
  font-size: 0.95rem;
}
.whose {
  display: block;
  font-size: 0.84rem;
}
.figures {
  display: flex;
  flex-direction: column;
  align-items: flex-end;
  font-size: 0.9rem;
  white-space: nowrap;
}
.detail {
  grid-column: 1 / -1;
  font-size: 0.85rem;
}
.bar {
  grid-column: 1 / -1;
  height: 7px;
  background: var(--track);
  border-right: 3px solid var(--ink);
  width: 60%;
}
.used {
  display: block;
  height: 100%;
}
.inside {
  border-left: 3px solid var(--copper);
  background: var(--paper);
  padding: 8px 12px;
  margin-bottom: 8px;
  font-size: 0.88rem;
  display: grid;
  gap: 6px;
}
</style>
