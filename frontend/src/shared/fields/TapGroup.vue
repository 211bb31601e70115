<script setup lang="ts" generic="T">
// Answers as buttons to tap, with a drawing where one helps; “not seen yet” is one of them.
import { useId } from 'vue'

defineProps<{
  label: string
  answers: { value: T; words: string }[]
  chosen: (value: T) => boolean
  many?: boolean
  hint?: string
  error?: string
}>()
defineEmits<{ tap: [value: T] }>()
defineSlots<{ picture?(answer: { value: never }): unknown }>()

const group = useId()
</script>

<template>
  <fieldset class="tap">
    <legend>{{ label }}</legend>
    <div class="answers" :class="{ pictured: $slots.picture }">
      <label v-for="(answer, place) in answers" :key="place" :class="{ unseen: answer.value === 'not_seen' }">
        <input
          :type="many ? 'checkbox' : 'radio'"
          :name="group"
          :checked="chosen(answer.value)"
          @change="$emit('tap', answer.value)"
        />
        <span class="answer">
          <span v-if="$slots.picture && answer.value !== 'not_seen'" class="picture" aria-hidden="true"
            ><slot name="picture" :value="answer.value as never"
          /></span>
          <span class="said"
            ><svg v-if="chosen(answer.value)" viewBox="0 0 12 12" aria-hidden="true">
              <path d="M1.5 6.5 4.7 9.6 10.5 2.6" /></svg
            >{{ answer.words }}</span
          >
        </span>
      </label>
    </div>
    <p v-if="hint" class="hint quiet">{{ hint }}</p>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
  </fieldset>
</template>

<style src="./tap-group.css" />
