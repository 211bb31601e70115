<script setup lang="ts">
// The run band as a table: the same figures, for a screen reader or a sceptic.
import type { RunProfile } from '../api/types'

defineProps<{ profile: RunProfile }>()
</script>

<template>
  <div class="wrap">
    <table>
      <caption>The run, board to charge point. Limits: {{ profile.volts_limit_v.toFixed(1) }} V<template v-if="profile.zs_limit_ohm !== null">, {{ profile.zs_limit_ohm.toFixed(2) }} Ω</template>, device {{ profile.device_a.toFixed(0) }} A, load {{ profile.load_a.toFixed(0) }} A.</caption>
      <thead>
        <tr><th scope="col">Section</th><th scope="col">Method</th><th scope="col">Length, m</th><th scope="col">Carries, A</th><th scope="col">Volts lost, V</th><th scope="col">Loop hot, Ω</th></tr>
      </thead>
      <tbody class="figure">
        <tr><th scope="row">Board</th><td>–</td><td>–</td><td>–</td><td>{{ profile.board_volts_lost_v.toFixed(2) }}</td><td>{{ profile.board_loop_ohm.toFixed(3) }}</td></tr>
        <tr v-for="section in profile.sections" :key="section.index">
          <th scope="row">{{ section.index + 1 }} {{ section.name }}</th>
          <td>{{ section.method }}</td>
          <td>{{ section.length_m }}</td>
          <td>{{ section.iz_a === null ? 'no rating' : section.iz_a.toFixed(1) }}</td>
          <td>{{ section.volts_lost_v.toFixed(2) }}</td>
          <td>{{ section.loop_ohm.toFixed(3) }}</td>
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
  min-width: 480px;
}
caption {
  text-align: left;
  color: var(--quiet);
  padding-bottom: 6px;
  padding-right: 90px;
}
th,
td {
  padding: 3px 18px 3px 0;
  text-align: right;
  border-bottom: 1px solid var(--line);
  white-space: nowrap;
}
th:first-child,
td:nth-child(2) {
  text-align: left;
}
tbody th {
  font-family: var(--text);
  font-weight: 400;
}
</style>
