<script setup lang="ts">
// Which lead goes to which terminal, by name; the colour of a conductor only repeats it. No instrument looks like this.
import { computed } from 'vue'

import type { Step } from '../api/types'

const props = defineProps<{ step: Step; moved: string[] }>()

const COLOURS: Record<string, string> = { L: 'var(--conductor-l)', N: 'var(--conductor-n)', E: 'var(--conductor-e)' }
const ROW = 34
const adapter = computed(() => props.step.adapter !== '')
const place = computed(() => props.step.where.replace(/^at (the |its )?/, ''))
const name = computed(() => place.value.charAt(0).toUpperCase() + place.value.slice(1))
const height = computed(() => Math.max(2, props.step.leads.length) * ROW + 12)
const rows = computed(() =>
  props.step.leads.map((lead, index) => ({
    ...lead,
    y: 22 + index * ROW + (props.step.leads.length === 1 ? ROW / 2 : 0),
    colour: COLOURS[lead.jack] ?? 'var(--ink)',
  })),
)
/** The ends of the leads are held together: nothing but they is read. */
const joined = computed(() => rows.value.length > 1 && rows.value.every((one) => one.at.every((at) => at === 'lead')))
const told = computed(() =>
  joined.value
    ? `${rows.value.map((one) => one.jack).join(' and ')} joined`
    : props.step.leads.map((lead) => `${lead.jack} to ${lead.terminal}`).join(', '),
)
</script>

<template>
  <svg
    v-if="rows.length || adapter"
    :viewBox="`0 0 640 ${height + (step.links ? 36 : 8)}`"
    class="drawing"
    role="img"
    :aria-label="`${step.range}. ${told}${step.links ? `. Link ${step.links}` : ''}`"
  >
    <rect x="2" y="4" width="134" :height="height" rx="6" class="box" />
    <text x="14" y="26" class="strong">Instrument</text>
    <foreignObject x="14" y="32" width="100" :height="height - 34">
      <p class="range">{{ step.range }}</p>
    </foreignObject>
    <g v-for="one in rows" :key="one.jack">
      <text x="128" :y="one.y + 5" text-anchor="end" class="jack">{{ one.jack }}</text>
      <line x1="136" x2="430" :y1="one.y" :y2="one.y" :stroke="one.colour" stroke-width="4" />
      <text x="148" :y="one.y - 6" :class="moved.includes(one.jack) ? 'strong' : 'stays'">
        <template v-if="!joined">{{ one.terminal }}{{ moved.includes(one.jack) ? '' : ', stays' }}</template>
      </text>
    </g>
    <template v-if="adapter">
      <rect x="430" y="4" width="96" :height="height" rx="6" class="box" />
      <text x="478" :y="height / 2" text-anchor="middle" class="strong">Adapter</text>
      <text x="478" :y="height / 2 + 20" text-anchor="middle">{{ step.adapter }}</text>
      <line x1="526" x2="558" :y1="height / 2 + 4" :y2="height / 2 + 4" class="lead" />
      <rect x="558" y="4" width="80" :height="height" rx="14" class="box" />
      <text x="598" :y="height / 2 + 8" text-anchor="middle">Unit</text>
    </template>
    <g v-else-if="joined">
      <path :d="`M430 ${rows[0]!.y}C470 ${rows[0]!.y} 470 ${rows.at(-1)!.y} 430 ${rows.at(-1)!.y}`" class="held" />
      <text x="474" :y="height / 2 + 10" class="strong">Ends joined</text>
    </g>
    <template v-else>
      <rect x="430" y="4" width="208" :height="height" rx="12" class="box" />
      <text x="446" :y="height / 2 + 10" class="strong">{{ name }}</text>
    </template>
    <g v-if="step.links">
      <path :d="`M14 ${height + 20}h24`" class="link-line" />
      <text x="46" :y="height + 25">Link {{ step.links }}</text>
    </g>
  </svg>
</template>

<style scoped>
.drawing {
  width: 100%;
  max-width: 560px;
  display: block;
}
.box {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2;
}
.lead {
  stroke: var(--ink);
  stroke-width: 6;
}
.held {
  fill: none;
  stroke: var(--ink);
  stroke-width: 4;
}
.link-line {
  stroke: var(--copper);
  stroke-width: 4;
  stroke-dasharray: 6 4;
}
text {
  font: 400 15px var(--text);
  fill: var(--ink);
}
.strong,
.jack {
  font-weight: 700;
}
.jack {
  font-family: var(--figures);
}
.stays {
  fill: var(--quiet);
}
.range {
  font-size: 14px;
  line-height: 1.15;
  color: var(--quiet);
}
</style>
