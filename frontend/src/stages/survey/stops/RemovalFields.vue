<script setup lang="ts">
// How a unit that is taken away leaves what it hung on: one tap each.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import TapField from '../../../shared/fields/TapField.vue'

const store = useJob()
const feeds = computed(() => store.job!.site.removal.cable === 'feeds_other')
const stays = computed(() => store.job!.site.removal.cable === 'parked')
// What the job says to be new, though nothing is put in: said in one tap to have been there.
const isNew = computed(() => store.evaluation?.asked.filter((one) => one.endsWith('.fitted_with_this_job')) ?? [])

function wasThere(): void {
  store.changeAll(isNew.value.map((field) => ({ field, value: false })))
}
</script>

<template>
  <div v-if="isNew.length" class="field">
    <p>Some of this job is still said to be new with it.</p>
    <v-btn variant="outlined" @click="wasThere">All of it was there before</v-btn>
  </div>
  <TapField path="site.removal.cable" label="What became of its cable?" choice="CableLeft" />
  <TapField v-if="stays" path="site.removal.ends_safe" label="Dead at both ends, in boxes, labelled?" choice="Seen" />
  <TapField v-if="!feeds" path="site.removal.way_at_board" label="Its way at the board?" choice="WayLeft" />
  <TapField path="site.removal.earth_whole" label="Earth and bonding of the house whole?" choice="Seen" />
  <TapField path="site.removal.electrode" label="An electrode of its own?" choice="ElectrodeLeft" />
  <TapField
    path="site.removal.shared"
    label="What shared its guards?"
    choice="SharedLeft"
    hint="RCD, open-PEN device, load limit."
  />
  <TapField path="site.removal.holes_closed" label="Holes closed against rain and fire?" choice="Seen" />
  <TapField path="site.removal.labels_right" label="Labels and circuit chart put right?" choice="Seen" />
  <TapField path="site.removal.operator_told" label="Operator told that it is gone?" choice="Seen" />
</template>
