<script setup lang="ts">
// Somebody saved this job meanwhile: both sides, and you choose.
import { computed } from 'vue'

import { differences } from '../shared/paths'
import { useJob } from './useJob'

const store = useJob()
const shown = computed(() => store.conflict !== undefined)
const rows = computed(() =>
  store.conflict ? differences(store.job, store.conflict.stored).filter((row) => !row.path.startsWith('readings')) : [],
)
const words = (path: string) => path.replaceAll('.', ' › ').replaceAll('_', ' ')
const text = (value: unknown) =>
  typeof value === 'object' && value !== null ? 'changed' : value === null ? 'nothing' : String(value)
</script>

<template>
  <v-dialog :model-value="shown" persistent>
    <v-card class="sheet" role="alertdialog" aria-labelledby="conflict-title">
      <h2 id="conflict-title" class="headline">Somebody saved this job meanwhile</h2>
      <p class="told">Nothing is overwritten yet. These fields differ:</p>
      <div class="scroll">
        <table>
          <thead>
            <tr>
              <th scope="col">Field</th>
              <th scope="col">Yours</th>
              <th scope="col">Saved</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.path">
              <th scope="row">{{ words(row.path) }}</th>
              <td>{{ text(row.mine) }}</td>
              <td>{{ text(row.theirs) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div class="choices">
        <v-btn color="ink" @click="store.resolveConflict(true)">Keep mine</v-btn>
        <v-btn variant="outlined" @click="store.resolveConflict(false)">Take what is saved</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.told {
  margin: 12px 0;
}
.scroll {
  max-height: 50vh;
  overflow: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.9rem;
}
th,
td {
  text-align: left;
  padding: 4px 12px 4px 0;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
tbody th {
  font-weight: 400;
}
.choices {
  display: flex;
  gap: 12px;
  margin-top: 16px;
  flex-wrap: wrap;
}
</style>
