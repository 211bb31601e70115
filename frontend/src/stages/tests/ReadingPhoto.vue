<script setup lang="ts">
// A photo of the display, kept with the reading.
import { mdiCamera } from '@mdi/js'
import { ref, shallowRef, useTemplateRef } from 'vue'

import { asProblem } from '../../api/client'
import { type Entry, photoByKey } from '../../device/entries'
import { useOutbox } from '../../device/outbox'
import { useJob } from '../../job/useJob'
import WaitingPhoto from '../../shared/WaitingPhoto.vue'

const sha256 = defineModel<string>({ required: true })
const store = useJob()
const input = useTemplateRef<HTMLInputElement>('input')
const { hand } = useOutbox()
const kept = ref(0)
const waits = shallowRef<Entry>()
const failed = ref('')
const sending = ref(false)

async function send(): Promise<void> {
  const file = input.value?.files?.[0]
  if (!file) return
  sending.value = true
  failed.value = ''
  try {
    const photo = { bytes: await file.arrayBuffer(), type: file.type, name: file.name, stop: 'charge_point' as const }
    const { entry, came } = await hand({ job: store.id, photo })
    sha256.value = came?.photo?.sha256 ?? photoByKey(entry.key)
    kept.value = came?.photo?.id ?? 0
    waits.value = came ? undefined : entry
  } catch (error) {
    failed.value = asProblem(error).detail
  }
  sending.value = false
  input.value!.value = ''
}
</script>

<template>
  <div class="photo">
    <input
      ref="input"
      type="file"
      accept="image/jpeg,image/png,image/webp,image/heic,image/heif,.heic,.heif"
      capture="environment"
      hidden
      data-testid="reading-photo"
      @change="send"
    />
    <v-btn variant="text" :prepend-icon="mdiCamera" :disabled="sending" @click="input?.click()">
      {{ sending ? 'Not taken yet…' : sha256 ? 'Another photo' : 'Photo of the display' }}
    </v-btn>
    <WaitingPhoto v-if="waits" class="thumb" :entry="waits" alt="The display, as photographed; on this device" />
    <img
      v-else-if="sha256"
      class="thumb"
      :src="`/api/v1/photos/${kept}/thumbnail.jpg`"
      alt="The display, as photographed"
    />
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
  </div>
</template>

<style scoped>
.photo {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
</style>
