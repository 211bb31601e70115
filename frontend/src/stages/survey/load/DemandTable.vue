<script setup lang="ts">
// The demand line by line, each with its rule; the figures are the core's.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import { fixed } from '../../../shared/format'

const store = useJob()
const demand = computed(() => store.evaluation!.demand)
const lines = computed(() => (demand.value.method === 'added_up' ? demand.value.lines : []))
</script>

<template>
  <table v-if="demand.house_a !== null">
    <caption>
      Maximum demand
    </caption>
    <thead v-if="lines.length">
      <tr>
        <th scope="col">Load</th>
        <th scope="col" class="num">Connected</th>
        <th scope="col" class="num">Counts</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="line in lines" :key="line.kind">
        <th scope="row">
          {{ line.name
          }}<span class="quiet rule"
            >{{ line.rule
            }}<template v-if="line.working.figures"
              >: <span class="figure">{{ line.working.figures }}</span></template
            ></span
          >
        </th>
        <td class="num figure">{{ fixed(line.connected_a, 1) }} A</td>
        <td class="num figure">{{ fixed(line.counted_a, 1) }} A</td>
      </tr>
      <tr class="sum">
        <th scope="row" :colspan="lines.length ? 2 : 1">House, {{ demand.source }}</th>
        <td class="num figure">{{ fixed(demand.house_a, 1) }} A</td>
      </tr>
      <tr>
        <th scope="row" :colspan="lines.length ? 2 : 1">Charge point, in full</th>
        <td class="num figure">{{ fixed(demand.car_a, 1) }} A</td>
      </tr>
      <tr class="sum">
        <th scope="row" :colspan="lines.length ? 2 : 1">Together</th>
        <td class="num figure">{{ fixed(demand.total_a!, 1) }} A</td>
      </tr>
      <tr v-if="demand.held_a !== demand.total_a" class="sum">
        <th scope="row" :colspan="lines.length ? 2 : 1">Held by the load limit</th>
        <td class="num figure">{{ fixed(demand.held_a!, 1) }} A</td>
      </tr>
    </tbody>
  </table>
  <p v-else class="quiet">The demand is not known yet.</p>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
caption {
  text-align: left;
  font-weight: 700;
  padding-bottom: 4px;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
thead th {
  color: var(--quiet);
  font-size: 0.88rem;
}
.num {
  text-align: right;
  padding-left: 14px;
  white-space: nowrap;
}
.rule {
  display: block;
  font-size: 0.85rem;
  overflow-wrap: anywhere;
}
.sum th,
.sum td {
  font-weight: 700;
}
</style>
