<script setup lang="ts">
// The run band as a table: the same figures, for a screen reader or a sceptic.
import { computed } from 'vue'

import type { RunProfile } from '../api/types'

const props = defineProps<{ profile: RunProfile }>()

const amps = (value: number | null) => (value === null ? '–' : value.toFixed(0))
const rows = computed(() => {
  const nodes = props.profile.nodes.map((node, index) => ({
    key: `n${index}`,
    order: node.kind === 'cut_out' ? -1 : node.at_m,
    node: true,
    name: node.name,
    cable: node.notes.join(', '),
    method: '',
    length: '',
    carries: '',
    device: '',
    load: amps(node.load_a),
    volts: node.volts_lost_v,
    loop: node.loop_ohm,
    fault: node.fault_ka === null ? '–' : node.fault_ka.toFixed(2),
  }))
  const sections = props.profile.sections.map((one) => ({
    key: `s${one.index}`,
    order: one.from_m + 1e-6,
    node: false,
    name: `${one.index + 1} ${one.name}`,
    cable: one.cable,
    method: one.method,
    length: String(one.length_m),
    carries: one.iz_a === null ? 'no rating' : one.iz_a.toFixed(1),
    device: amps(one.device_a),
    load: amps(one.load_a),
    volts: one.volts_lost_v,
    loop: one.loop_ohm,
    fault: '',
  }))
  return [...nodes, ...sections].sort((one, other) => one.order - other.order)
})
</script>

<template>
  <div class="wrap">
    <table>
      <caption>
        The run, cut-out to charge point. Limits at its end:
        {{
          profile.volts_limit_v.toFixed(1)
        }}
        V<template v-if="profile.zs_limit_ohm !== null">, {{ profile.zs_limit_ohm.toFixed(2) }} Ω</template
        >, device
        {{
          profile.device_a.toFixed(0)
        }}
        A, load
        {{
          profile.load_a.toFixed(0)
        }}
        A.
      </caption>
      <thead>
        <tr>
          <th scope="col">Place</th>
          <th scope="col">Cable</th>
          <th scope="col">Method</th>
          <th scope="col">Length, m</th>
          <th scope="col">Carries, A</th>
          <th scope="col">Device, A</th>
          <th scope="col">Load, A</th>
          <th scope="col">Volts lost, V</th>
          <th scope="col">Loop hot, Ω</th>
          <th scope="col">Fault, kA</th>
        </tr>
      </thead>
      <tbody class="figure">
        <tr v-for="row in rows" :key="row.key" :class="{ node: row.node }">
          <th scope="row">{{ row.name }}</th>
          <td>{{ row.cable }}</td>
          <td>{{ row.method }}</td>
          <td>{{ row.length }}</td>
          <td>{{ row.carries }}</td>
          <td>{{ row.device }}</td>
          <td>{{ row.load }}</td>
          <td>{{ row.volts.toFixed(2) }}</td>
          <td>{{ row.loop.toFixed(3) }}</td>
          <td>{{ row.fault }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.wrap {
  overflow-x: auto;
  padding: 12px 20px 16px;
}
table {
  border-collapse: collapse;
  font-size: 0.9rem;
  min-width: 860px;
}
caption {
  text-align: left;
  color: var(--quiet);
  padding-bottom: 6px;
  padding-right: 90px;
}
th,
td {
  padding: 3px 14px 3px 0;
  text-align: right;
  border-bottom: 1px solid var(--line);
  white-space: nowrap;
}
th:first-child,
th:nth-child(2),
th:nth-child(3),
td:nth-child(2),
td:nth-child(3) {
  text-align: left;
}
td:nth-child(2) {
  font-family: var(--text);
  white-space: normal;
}
tbody th {
  font-family: var(--text);
  font-weight: 400;
}
.node th,
.node td {
  font-weight: 700;
}
</style>
