<script setup lang="ts">
// An open-PEN device by what it watches, what it opens, and how fast.
import JobField from './JobField.vue'

// `live` is where it is kept whether one inside a unit opens line and neutral; another tells it by its poles.
defineProps<{ path: string; live?: string }>()

const YES_NO = [
  { value: true, words: 'yes' },
  { value: false, words: 'no' },
]
</script>

<template>
  <JobField
    :path="`${path}.sensing`"
    label="Open-PEN device watches"
    kind="choice"
    choice="OpenPenSensing"
    class="wide"
  />
  <JobField v-if="live" :path="live" label="It opens line and neutral" kind="choice" choice="Seen" />
  <JobField :path="`${path}.opens_protective_conductor`" label="It opens the earth too" kind="choice" :items="YES_NO" />
  <JobField :path="`${path}.opens_within_s`" label="It opens within" kind="number" unit="s" />
  <JobField :path="`${path}.closes_by_hand`" label="Closes only by hand" kind="choice" :items="YES_NO" />
</template>
