<script setup lang="ts">
// One way: its words, its judgement, and on demand why, with clause and fear.
import { computed, ref } from 'vue'

import type { ArrangementOption } from '../../../api/types'
import VerdictMark from '../../../shared/VerdictMark.vue'

const props = defineProps<{ way: ArrangementOption }>()
defineEmits<{ take: [] }>()

const open = ref(false)
const WORDS = { allowed: 'Allowed', condition: 'With a condition', refused: 'Refused' }
const title = computed(() => `${props.way.earth}; ${props.way.open_pen}`)
</script>

<template>
  <li>
    <button type="button" class="head" :aria-expanded="open" @click="open = !open">
      <span
        ><VerdictMark :verdict="way.verdict" :said="WORDS[way.allowance]" />&ensp;<b>{{ title }}</b
        ><span v-if="way.chosen" class="now"> as it stands</span></span
      >
      <span class="quiet small"
        >{{ way.rcd }}; DC detection {{ way.rdc_dd }}; surge protection {{ way.surge ? 'fitted' : 'left out' }}</span
      >
      <span v-if="!open && way.reasons.length" class="quiet small">{{ way.reasons[0]!.text }}</span>
    </button>
    <div v-if="open" class="inside">
      <p v-if="!way.reasons.length">Every check holds.</p>
      <div v-for="reason in way.reasons" :key="reason.rule">
        <p>
          {{ reason.text }} <span class="quiet">{{ reason.clause }}</span>
        </p>
        <p v-if="reason.fear"><b>What can happen:</b> {{ reason.fear }}</p>
        <p v-if="reason.school" class="quiet">{{ reason.school }}</p>
      </div>
      <v-btn v-if="way.offered" variant="outlined" size="small" @click="$emit('take')">Take this way</v-btn>
    </div>
  </li>
</template>

<style scoped>
li {
  border-top: 1px solid var(--line);
}
.head {
  display: grid;
  gap: 2px;
  width: 100%;
  padding: 8px 0;
  min-height: 44px;
  background: none;
  border: 0;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
}
.small,
.now {
  font-size: 0.88rem;
}
.inside {
  border-left: 3px solid var(--copper);
  background: var(--sheet);
  padding: 8px 12px;
  margin-bottom: 10px;
  display: grid;
  gap: 8px;
  font-size: 0.92rem;
  justify-items: start;
}
</style>
