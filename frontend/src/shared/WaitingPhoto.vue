<script setup lang="ts">
// A photo that is on this device and not sent yet.
import { onBeforeUnmount } from 'vue'

import type { Entry } from '../device/entries'

const props = defineProps<{ entry: Entry; alt: string }>()

const { bytes, type } = props.entry.photo!
const address = URL.createObjectURL(new Blob([bytes], { type }))
onBeforeUnmount(() => URL.revokeObjectURL(address))
</script>

<template><img :src="address" :alt="alt" /></template>
