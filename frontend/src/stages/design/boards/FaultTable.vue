<script setup lang="ts">
// Which device goes off for a fault at each point of the run, conductors hot.
import { useJob } from '../../../job/useJob'

const store = useJob()
</script>

<template>
  <div v-if="store.faults?.faults.length" class="wide-table" role="group" aria-label="What goes off" tabindex="0">
    <table>
      <caption>
        What goes off
      </caption>
      <thead>
        <tr>
          <th scope="col">Fault at</th>
          <th scope="col">Between</th>
          <th scope="col" class="num">Flows, A</th>
          <th scope="col">Opens first</th>
          <th scope="col">May open too</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="fault in store.faults.faults" :key="`${fault.at}${fault.to_earth}`">
          <th scope="row">{{ fault.at }}</th>
          <td>{{ fault.to_earth ? 'line and earth' : 'line and neutral' }}</td>
          <td class="num">{{ fault.fault_a.toFixed(0) }}</td>
          <td>{{ fault.first ? `${fault.first}, within ${fault.within_s} s` : 'nothing within 5 s' }}</td>
          <td>{{ fault.may_open_too.join('; ') || '–' }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
