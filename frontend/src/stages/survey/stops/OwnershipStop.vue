<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import LookedField from '../../../shared/fields/LookedField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import RemovalFields from './RemovalFields.vue'

const store = useJob()
const removed = computed(() => store.job!.site.work === 'removed')
const others = computed(() => ['owner_lets_it', 'tenant'].includes(store.job!.site.ownership))
</script>

<template>
  <TapField path="site.ownership" label="Whose home is it?" choice="Ownership" />
  <TapField v-if="others" path="site.permission_in_writing" label="Has the owner agreed in writing?" choice="Seen" />
  <LookedField path="site.circumstances" label="Is any of this so?" choice="Circumstance" none="none of these" />
  <TapField
    path="site.nation"
    label="Where does it stand?"
    choice="Nation"
    hint="Each tells building control its own way."
  />
  <div class="pair">
    <JobField path="title" label="Name of the job" />
    <JobField path="reference" label="Your reference" />
  </div>
  <JobField path="site.householder" label="Householder" />
  <JobField path="site.address" label="Address" kind="paragraph" />
  <TapField path="site.work" label="Kind of work" choice="WorkKind" />
  <TapField
    v-if="store.job!.site.work === 'moved'"
    path="site.old_place"
    label="Is the place that it was moved from left safe?"
    choice="Seen"
    hint="Cable ended or taken out, hole closed, label and schedule changed."
  />
  <RemovalFields v-if="removed" />
  <JobField
    path="site.extent"
    :label="removed ? 'What was taken away' : 'What the certificate covers'"
    kind="paragraph"
  />
</template>
