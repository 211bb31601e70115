<script setup lang="ts">
// One answer that arrived: accept it into the job, or ask again with a word on what is wanted.
import { ref } from 'vue'

import type { GivenAnswer } from '../../../api/types'

defineProps<{ given: GivenAnswer }>()
const emit = defineEmits<{ accept: []; again: [note: string] }>()

const asking = ref(false)
const note = ref('')
const STATE = { arrived: 'Arrived', accepted: 'Accepted', asked_again: 'Asked again' }

function again(): void {
  emit('again', note.value.trim())
  asking.value = false
}
</script>

<template>
  <li>
    <p class="quiet">{{ given.text }}</p>
    <p v-if="given.words !== 'photo'">
      <b>{{ given.words }}</b>
    </p>
    <p v-else class="photos">
      <a v-for="photo in given.photos" :key="photo" :href="`/api/v1/photos/${photo}.jpg`" target="_blank"
        ><img class="thumb" :src="`/api/v1/photos/${photo}/thumbnail.jpg`" :alt="`Photo: ${given.text}`"
      /></a>
    </p>
    <p class="state">
      <b>{{ STATE[given.state] }}</b><template v-if="given.note">: “{{ given.note }}”</template>
      <template v-if="given.state === 'arrived'">
        <v-btn variant="outlined" size="small" @click="$emit('accept')">Accept</v-btn>
        <v-btn variant="text" size="small" @click="asking = true">Ask again</v-btn>
      </template>
    </p>
    <form v-if="asking" @submit.prevent="again">
      <v-text-field v-model="note" label="What is wanted instead?" maxlength="500" autofocus />
      <v-btn type="submit" color="ink" :disabled="note.trim().length < 3">Ask again</v-btn>
    </form>
  </li>
</template>

<style scoped>
li {
  border-top: 1px solid var(--line);
  padding: 8px 0;
}
.quiet {
  font-size: 0.9rem;
}
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.state {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  font-size: 0.9rem;
}
form {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: center;
  padding-top: 6px;
}
</style>
