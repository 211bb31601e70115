<script setup lang="ts">
// The big figure, what is expected of it and what limits it; keys on a desktop, the pad on a phone.
import { useTemplateRef } from 'vue'
import { useDisplay } from 'vuetify'

import type { Step } from '../../api/types'
import { bandWords, limitWords } from '../../readings/readingWords'
import type { useReadingEntry } from '../../readings/useReadingEntry'
import TapGroup from '../../shared/fields/TapGroup.vue'
import { mayBeAThousand } from '../../shared/format'

const props = defineProps<{ step: Step; entry: ReturnType<typeof useReadingEntry> }>()
const emit = defineEmits<{ keep: []; leave: [kind: 'could_not_test' | 'not_applicable']; fromSet: [] }>()

const { smAndDown } = useDisplay()
const input = useTemplateRef<HTMLInputElement>('input')
const VOLTS = [500, 250].map((value) => ({ value, words: `${value} V d.c.` }))
const volts = props.entry.testVoltageV
const typed = props.entry.typed

function keys(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const key = event.key.toLowerCase()
  if (key === 'enter') emit('keep')
  else if (key === '>' && typed.value && !typed.value.startsWith('>')) over()
  else if (key === 't') emit('fromSet')
  else if (key === 'l') emit('leave', 'could_not_test')
  else if (key === 'n') emit('leave', 'not_applicable')
  else return
  event.preventDefault()
}
function over(): void {
  typed.value = `>${typed.value}`
  emit('keep')
}
defineExpose({ focus: () => input.value?.focus() })
</script>

<template>
  <div class="entry">
    <div class="big figure">
      <input
        ref="input"
        v-model="typed"
        :aria-label="`${step.title} in ${step.unit}`"
        :inputmode="smAndDown ? 'none' : 'decimal'"
        autocomplete="off"
        maxlength="8"
        @keydown="keys"
      />
      <span>{{ step.unit }}</span>
    </div>
    <p v-if="mayBeAThousand(typed.trim())" class="failed" role="alert">
      {{ typed }}: {{ typed.replace(',', '') }}, or {{ typed.replace(',', '.') }}? Write it without the comma.
    </p>
    <p class="expect">
      <template v-if="bandWords(step)"
        >Expect <b class="figure">{{ bandWords(step) }}</b><span class="from">: {{ step.expected_from }}</span
        >.<br />
      </template>
      <template v-if="limitWords(step)"
        >Limit <b class="figure">{{ limitWords(step) }}</b><span v-if="step.limit_from" class="from"
          >, {{ step.limit_from.replace(/\.$/, '') }}</span
        >.</template
      >
    </p>
    <details v-if="step.expected_parts.length > 1" class="sum">
      <summary>What it is made of</summary>
      <ul>
        <li v-for="part in step.expected_parts" :key="part">{{ part }}</li>
      </ul>
    </details>
  </div>
  <TapGroup
    v-if="step.function === 'insulation'"
    label="Tested at"
    :answers="VOLTS"
    :chosen="(one) => one === volts"
    @tap="volts = $event"
  />
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: 250px 1fr;
  gap: 24px;
  align-items: center;
}
.big {
  display: flex;
  align-items: baseline;
  border-bottom: 3px solid var(--copper);
}
.big input {
  width: 100%;
  min-width: 0;
  border: 0;
  background: none;
  color: inherit;
  font: 400 3.4rem/1.1 var(--figures);
  outline-offset: 4px;
}
.big:focus-within {
  box-shadow: 0 3px 0 var(--copper);
}
.big input:focus-visible {
  outline: 0;
}
.big span {
  font-size: 1.7rem;
}
.expect {
  font-size: 0.95rem;
}
.sum {
  grid-column: 1 / -1;
  font-size: 0.9rem;
}
.sum summary {
  cursor: pointer;
  min-height: 32px;
}
.sum ul {
  columns: 2 220px;
  padding-left: 18px;
}
@media (max-width: 839px) {
  .from {
    display: none;
  }
  .entry {
    grid-template-columns: 1fr;
    gap: 6px;
  }
}
</style>
