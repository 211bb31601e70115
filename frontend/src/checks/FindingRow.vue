<script setup lang="ts">
// One finding: verdict, figure against limit, how much of the limit is used; the rest on demand.
import { computed } from 'vue'

import type { Finding, Settled } from '../api/types'
import { fixed } from '../shared/format'
import VerdictMark from '../shared/VerdictMark.vue'
import DecisionForm from './DecisionForm.vue'
import RemedyList from './RemedyList.vue'
import { isOpen } from './useCheckGroups'
import { useWhole } from './useWhole'
import WorkingLines from './WorkingLines.vue'

const props = defineProps<{ finding: Finding | Settled; open: boolean }>()
defineEmits<{ toggle: [] }>()

const figure = computed(() => ('figure' in props.finding ? props.finding.figure : props.finding))
const value = computed(() =>
  figure.value?.value == null ? '' : `${fixed(figure.value.value, figure.value.decimals)} ${figure.value.unit}`,
)
const limit = computed(() =>
  figure.value?.limit == null
    ? ''
    : `${figure.value.at_least ? 'at least' : 'at most'} ${fixed(figure.value.limit, figure.value.decimals)}`,
)
// How full the bar is follows from the core's margin, not from a sum made here.
const used = computed(() =>
  props.finding.margin === null ? null : Math.min(1, Math.max(0.02, 1 - props.finding.margin)),
)
const open = computed(() => isOpen(props.finding))
const waitsFor = computed(() => ('waits_for' in props.finding ? props.finding.waits_for : null))
const { whole, failed } = useWhole(
  () => props.finding,
  () => props.open,
)
</script>

<template>
  <li class="row" :data-key="finding.key">
    <button type="button" :aria-expanded="props.open" @click="$emit('toggle')">
      <span class="words">
        <VerdictMark :verdict="finding.verdict" :waits-for="waitsFor" />&ensp;<span class="title">{{
          finding.title
        }}</span>
        <span v-if="finding.whose" class="quiet whose">{{ finding.whose }}</span>
      </span>
      <span class="figures figure"
        ><span>{{ value }}</span
        ><span class="quiet">{{ limit }}</span></span
      >
      <span v-if="used !== null && !figure?.at_least" class="bar" aria-hidden="true"
        ><span class="used glide" :style="{ width: `${used * 100}%`, background: `var(--${finding.verdict})` }"
      /></span>
      <span v-if="open" class="detail quiet">{{ whole?.detail }}</span>
    </button>
    <p v-if="failed" role="alert">{{ failed }}</p>
    <div v-if="props.open && whole" class="inside">
      <p v-if="!open" class="quiet">{{ whole.detail }}</p>
      <p v-if="whole.fear"><b>What can happen:</b> {{ whole.fear }}</p>
      <p v-if="whole.remedy"><b>To mend:</b> {{ whole.remedy }}</p>
      <p v-if="whole.school">{{ whole.school }}</p>
      <WorkingLines :lines="whole.working" />
      <p class="quiet clause">{{ whole.clause }}</p>
    </div>
    <RemedyList v-if="whole?.offers === 'remedies'" :key="whole.detail" :finding="whole" />
    <template v-if="whole?.offers === 'reason'">
      <DecisionForm v-if="props.open" :finding="whole" />
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
