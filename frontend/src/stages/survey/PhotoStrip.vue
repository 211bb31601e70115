<script setup lang="ts">
// The photos of one stop, shown beside the questions they answer.
import { mdiCamera, mdiDeleteOutline } from '@mdi/js'
import { ref, useTemplateRef } from 'vue'

import type { Stop } from '../../api/types'
import WaitingPhoto from '../../shared/WaitingPhoto.vue'
import { usePhotos } from './usePhotos'

const props = defineProps<{ stop: Stop }>()

const { photos, waiting, failed, add, remove } = usePhotos(() => props.stop)
const input = useTemplateRef<HTMLInputElement>('input')
const sending = ref(false)

async function send(): Promise<void> {
  const files = [...(input.value?.files ?? [])]
  sending.value = true
  await add(props.stop, files)
  sending.value = false
  input.value!.value = ''
}
</script>

<template>
  <section class="photos" aria-label="Photos">
    <ul>
      <li v-for="(photo, index) in photos" :key="photo.id">
        <a :href="`/api/v1/photos/${photo.id}.jpg`" target="_blank"
          ><img
            :src="`/api/v1/photos/${photo.id}/thumbnail.jpg`"
            :alt="`Photo ${index + 1}${photo.question ? ', from the householder' : ''}`"
        /></a>
        <v-btn :icon="mdiDeleteOutline" size="small" :aria-label="`Remove photo ${index + 1}`" @click="remove(photo)" />
        <span v-if="photo.question" class="from">householder’s</span>
      </li>
      <li v-for="(entry, index) in waiting" :key="entry.key">
        <WaitingPhoto :entry="entry" :alt="`Photo ${photos.length + index + 1}, on this device`" />
        <span class="from">not yet saved</span>
      </li>
      <li>
        <input
          ref="input"
          type="file"
          accept="image/jpeg,image/png,image/webp,image/heic,image/heif,.heic,.heif"
          multiple
          hidden
          :data-testid="`photo-${stop}`"
          @change="send"
        />
        <button
          type="button"
          class="add"
          :class="{ first: !photos.length && !waiting.length }"
          :disabled="sending"
          @click="input?.click()"
        >
          <v-icon :icon="mdiCamera" /> {{ sending ? 'Not taken yet…' : 'Add a photo' }}
        </button>
      </li>
    </ul>
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
  </section>
</template>

<style scoped>
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  position: relative;
}
img,
.add {
  display: block;
  width: 124px;
  height: 92px;
  object-fit: cover;
  border-radius: 8px;
  border: 1.5px solid var(--line);
}
.add {
  background: none;
  border-style: dashed;
  border-color: var(--copper);
  color: var(--copper);
  font: inherit;
  font-weight: 700;
  font-size: 0.9rem;
  cursor: pointer;
}
.add.first {
  width: auto;
  height: 44px;
  padding: 0 14px;
}
li .v-btn {
  position: absolute;
  right: 4px;
  top: 4px;
}
.from {
  position: absolute;
  left: 0;
  bottom: 0;
  padding: 1px 8px;
  border-radius: 0 8px 0 8px;
  background: var(--ink);
  color: var(--paper);
  font-size: 0.8rem;
}
@media (max-width: 839px) {
  section {
    min-width: 0;
  }
  ul {
    flex-wrap: nowrap;
    overflow-x: auto;
  }
  img,
  .add,
  .add.first {
    width: auto;
    height: 44px;
    white-space: nowrap;
    padding: 0 12px;
  }
  img {
    padding: 0;
    width: 58px;
  }
}
.failed {
  margin-top: 8px;
  border-left: 4px solid var(--falls_short);
  background: var(--sheet);
  padding: 8px 12px;
}
</style>
