<script setup lang="ts">
// A photo of the display, kept with the reading.
import { mdiCamera } from '@mdi/js'
import { ref, useTemplateRef } from 'vue'

import { asProblem, sendPhoto } from '../../api/client'
import type { PhotoInfo } from '../../api/types'
import { useJob } from '../../job/useJob'

const sha256 = defineModel<string>({ required: true })
const store = useJob()
const input = useTemplateRef<HTMLInputElement>('input')
const kept = ref(0)
const failed = ref('')
const sending = ref(false)

async function send(): Promise<void> {
  const file = input.value?.files?.[0]
  if (!file) return
  sending.value = true
  failed.value = ''
  try {
    const photo = await sendPhoto<PhotoInfo>(`/api/v1/jobs/${store.id}/photos?stop=charge_point`, file)
    sha256.value = photo.sha256
    kept.value = photo.id
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
      {{ sending ? 'Sending…' : sha256 ? 'Another photo' : 'Photo of the display' }}
    </v-btn>
    <img v-if="sha256" class="thumb" :src="`/api/v1/photos/${kept}/thumbnail.jpg`" alt="The display, as photographed" />
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
