<script setup lang="ts">
// How a unit that is taken away leaves what it hung on: one tap each.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import TapField from '../../../shared/fields/TapField.vue'

const store = useJob()
const stays = computed(() => store.job!.site.removal.cable === 'parked')
</script>

<template>
  <TapField path="site.removal.cable" label="What became of its cable?" choice="CableLeft" />
  <TapField v-if="stays" path="site.removal.ends_safe" label="Dead at both ends, in boxes, labelled?" choice="Seen" />
  <TapField path="site.removal.way_closed" label="Its way blanked, or off, locked and labelled?" choice="Seen" />
  <TapField
    path="site.removal.earth_whole"
    label="Earth and bonding of the house whole?"
    choice="Seen"
    hint="An electrode of its own is taken out or labelled."
  />
  <TapField
    path="site.removal.rest_works"
    label="What shared its guards tested again?"
    choice="Seen"
    hint="RCD, open-PEN device, load limit; yes where nothing shared them."
  />
  <TapField path="site.removal.holes_closed" label="Holes closed against rain and fire?" choice="Seen" />
  <TapField path="site.removal.labels_right" label="Labels and circuit chart put right?" choice="Seen" />
  <TapField path="site.removal.operator_told" label="Operator told that it is gone?" choice="Seen" />
</template>
