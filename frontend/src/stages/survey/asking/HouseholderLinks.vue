<script setup lang="ts">
// The link for the householder's phone: made, shown once, withdrawn; and what arrived by it.
import { ref } from 'vue'

import { dayAndTime } from '../../../shared/format'
import { usePerson } from '../../../shared/usePerson'
import ArrivedAnswer from './ArrivedAnswer.vue'
import { useLinks } from './useLinks'

const { name } = usePerson()
const { links, made, failed, look, make, withdraw, accept, askAgain } = useLinks()
const days = ref(14)
const copied = ref(false)
const DAYS = [3, 7, 14, 30, 60].map((value) => ({ value, words: `${value} days` }))

async function copy(): Promise<void> {
  await navigator.clipboard.writeText(made.value!.address)
  copied.value = true
}
</script>

<template>
  <section aria-label="The householder’s link">
    <h3>The householder’s link</h3>
    <p class="quiet">
      Plain questions and photos, answered from a phone without an account. It shows nothing of the job.
    </p>
    <form @submit.prevent="make(name, days)">
      <v-text-field v-model="name" label="Your name, as they know you" maxlength="200" />
      <v-select v-model="days" label="It works for" :items="DAYS" item-title="words" item-value="value" />
      <v-btn type="submit" color="ink" :disabled="name.trim().length < 2">Make a link</v-btn>
    </form>
    <div v-if="made" class="made" role="status">
      <p><b>Send this to the householder.</b> It is shown this once; works until {{ dayAndTime(made.expires_at) }}.</p>
      <p class="figure address">{{ made.address }}</p>
      <v-btn variant="outlined" size="small" @click="copy">{{ copied ? 'Copied' : 'Copy' }}</v-btn>
    </div>
    <p v-if="failed" role="alert" class="failed">{{ failed }}</p>
    <div v-for="link in links" :key="link.id" class="link-row">
      <p>
        <b>{{
          link.ended === 'withdrawn'
            ? 'Withdrawn'
            : link.ended === 'expired'
              ? 'Run out'
              : `Works until ${dayAndTime(link.expires_at)}`
        }}</b>
        <span class="quiet"> made by {{ link.made_by }}, {{ dayAndTime(link.made_at) }}</span>
      </p>
      <span class="buttons">
        <button v-if="!link.ended" type="button" class="link" @click="look">Look for answers</button>
        <button v-if="!link.ended" type="button" class="link" @click="withdraw(link)">Withdraw</button>
      </span>
      <ul v-if="link.answers.length">
        <ArrivedAnswer
          v-for="given in link.answers"
          :key="given.id"
          :given="given"
          @accept="accept(given)"
          @again="askAgain(given, $event)"
        />
      </ul>
      <p v-else class="quiet">Nothing has arrived yet.</p>
    </div>
  </section>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px auto;
  gap: 8px;
  align-items: center;
  padding: 10px 0;
}
.made {
  border: 2px solid var(--copper);
  border-radius: 8px;
  padding: 10px 14px;
  display: grid;
  gap: 6px;
  justify-items: start;
}
.address {
  overflow-wrap: anywhere;
  user-select: all;
}
.link-row {
  border-top: 1px solid var(--line);
  padding: 10px 0;
  margin-top: 10px;
}
.buttons {
  display: flex;
  gap: 18px;
}
.buttons .link {
  min-height: 44px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
@media (max-width: 839px) {
  form {
    grid-template-columns: 1fr;
  }
}
</style>
