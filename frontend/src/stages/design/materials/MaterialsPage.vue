<script setup lang="ts">
// What to buy and how long it takes, from the design; the price list is the user's own.
import { mdiDownload } from '@mdi/js'
import { computed, ref } from 'vue'

import { answer, api, asProblem, download } from '../../../api/client'
import type { MaterialsList } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { counted } from '../../../shared/format'
import { useAsked } from '../../../shared/useAsked'
import PriceEditor from './PriceEditor.vue'

const store = useJob()
const turn = ref(0)
const { found, failed } = useAsked(
  () => ({ job: store.judged!, turn: turn.value }),
  ({ job }) => answer<MaterialsList>(api.POST('/api/v1/materials', { body: job })),
)
const trouble = ref('')
const hours = computed(() => ((found.value?.work_min ?? 0) / 60).toFixed(1))

async function save(): Promise<void> {
  trouble.value = ''
  try {
    await download('/api/v1/materials.csv', store.job, 'materials.csv')
  } catch (error) {
    trouble.value = asProblem(error).detail
  }
}
</script>

<template>
  <section class="run-page" aria-label="Materials">
    <p v-if="failed || trouble" class="failed" role="alert">{{ failed || trouble }}</p>
    <template v-if="found">
      <p class="told" role="status">
        {{ found.lines.length }} items, {{ found.price.toFixed(0) }} in material, about {{ hours }} hours of work.
      </p>
      <p class="quiet small">
        Diameters, glands and working times are usual ones: measure the cable before you drill.<template
          v-if="found.invented"
        >
          Prices marked * are invented until you bring your own.</template
        ><template v-if="found.unpriced"> {{ found.unpriced }} items have no price and are in no sum.</template>
      </p>
      <div class="wide-table" role="group" aria-label="Items" tabindex="0">
        <table>
          <thead>
            <tr>
              <th scope="col" class="num">How much</th>
              <th scope="col">What, and why</th>
              <th scope="col" class="num">Price</th>
              <th scope="col" class="num work">Work, min</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in found.lines" :key="line.material.key">
              <td class="num">{{ counted(line.material.quantity, line.material.unit) }}</td>
              <th scope="row">
                {{ line.material.name }} <span class="quiet small why">{{ line.material.why }}</span>
              </th>
              <td class="num">
                {{ line.price === null ? '–' : `${line.price.toFixed(2)}${line.invented ? '*' : ''}` }}
              </td>
              <td class="num work">{{ line.work_min === null ? '–' : line.work_min.toFixed(0) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="acts"><v-btn variant="outlined" :prepend-icon="mdiDownload" @click="save">Save as CSV</v-btn></p>
    </template>
    <PriceEditor @changed="turn += 1" />
  </section>
</template>

<style src="../page.css" />
<style scoped>
.why {
  display: block;
}
@media (max-width: 839px) {
  .work {
    display: none;
  }
}
.told {
  font-size: 1.12rem;
  font-weight: 700;
}
</style>
