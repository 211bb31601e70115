<script setup lang="ts">
// One plain question: tap, type, or send a photo.
import { mdiCamera, mdiCheck } from '@mdi/js'
import { computed, ref, useTemplateRef, watch } from 'vue'

import type { AskedQuestion } from '../api/types'
import TapGroup from '../shared/fields/TapGroup.vue'
import { typedNumber } from '../shared/format'

const props = defineProps<{ asked: AskedQuestion; secret: string; error: string; busy: boolean }>()
const emit = defineEmits<{ give: [value: unknown]; send: [photo: File] }>()

const question = computed(() => props.asked.question)
const input = useTemplateRef<HTMLInputElement>('input')
const typed = ref('')
watch(
  () => props.asked.value,
  (value) => (typed.value = value === null || Array.isArray(value) ? '' : String(value)),
  { immediate: true },
)

const many = computed(() => question.value.kind === 'many')
const chosen = (value: string) =>
  many.value ? ((props.asked.value as string[] | null) ?? []).includes(value) : props.asked.value === value
function tap(value: string): void {
  if (!many.value) return emit('give', value)
  const now = (props.asked.value as string[] | null) ?? []
  emit('give', now.includes(value) ? now.filter((one) => one !== value) : [...now, value])
}
function keep(): void {
  emit('give', question.value.kind === 'number' ? typedNumber(typed.value) : typed.value)
}
function send(): void {
  for (const file of input.value?.files ?? []) emit('send', file)
  input.value!.value = ''
}
</script>

<template>
  <li>
    <TapGroup
      v-if="question.kind === 'choice' || many"
      :label="question.text"
      :answers="question.answers"
      :chosen="chosen"
      :many="many"
      :hint="question.hint"
      @tap="tap"
    />
    <form v-else-if="question.kind !== 'photo'" @submit.prevent="keep">
      <p>
        <b>{{ question.text }}</b> <span class="quiet">{{ question.hint }}</span>
      </p>
      <v-text-field
        v-model="typed"
        :aria-label="question.text"
        :inputmode="question.kind === 'number' ? 'decimal' : 'text'"
        maxlength="200"
      />
      <v-btn type="submit" variant="outlined" :disabled="!typed.trim() || typed === String(asked.value ?? '')"
        >Send</v-btn
      >
    </form>
    <div v-else class="photo">
      <p>
        <b>{{ question.text }}</b> <span class="quiet">{{ question.hint }}</span>
      </p>
      <div class="thumbs">
        <img
          class="thumb"
          v-for="photo in asked.photos"
          :key="photo"
          :src="`/api/v1/householder/${secret}/photos/${photo}.jpg`"
          alt="The photo you sent"
        />
      </div>
      <input ref="input" type="file" accept="image/*" hidden :data-testid="question.key" @change="send" />
      <v-btn variant="outlined" :prepend-icon="mdiCamera" :disabled="busy" @click="input?.click()">{{
        busy ? 'Sending…' : asked.photos.length ? 'Another photo' : 'Take or choose a photo'
      }}</v-btn>
    </div>
    <p v-if="asked.state === 'asked_again'" class="again" role="note"><b>Please once more:</b> {{ asked.note }}</p>
    <p v-else-if="asked.state !== 'open' && !error" class="sent"><v-icon :icon="mdiCheck" size="small" /> sent</p>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
  </li>
</template>

<style scoped>
li {
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: 14px;
}
form,
.photo {
  display: grid;
  gap: 8px;
  justify-items: start;
}
form .v-text-field {
  width: 100%;
}
.quiet {
  display: block;
  font-size: 0.9rem;
}
.thumbs {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.sent {
  color: var(--meets);
  font-size: 0.9rem;
  padding-top: 6px;
}
.again {
  border-left: 4px solid var(--needs);
  padding: 4px 12px;
  margin-top: 8px;
}
.error {
  color: var(--falls_short);
  font-size: 0.92rem;
  padding-top: 6px;
}
</style>
