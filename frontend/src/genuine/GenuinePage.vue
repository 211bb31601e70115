<script setup lang="ts">
// Is this certificate genuine? A PDF from outside, held against what this store issued; nothing of it is kept.
import { onMounted, ref, useTemplateRef } from 'vue'

import { asProblem, sendPaper } from '../api/client'
import type { VerifiedPaper } from '../api/types'
import CautionNote from '../shared/CautionNote.vue'

const FINE = ['genuine', 'saved_again']
const BAD = ['altered', 'store_altered']
const input = useTemplateRef<HTMLInputElement>('input')
const name = ref('')
const found = ref<VerifiedPaper>()
const failed = ref('')
const busy = ref(false)

async function look(): Promise<void> {
  const file = input.value?.files?.[0]
  if (!file) return
  name.value = file.name
  found.value = undefined
  failed.value = ''
  busy.value = true
  try {
    found.value = await sendPaper<VerifiedPaper>('/api/v1/papers/verify', file)
  } catch (error) {
    failed.value = asProblem(error).detail
  }
  busy.value = false
  if (input.value) input.value.value = ''
}
onMounted(() => {
  document.title = 'Is it genuine? · Fulmen'
})
</script>

<template>
  <header class="bar">
    <router-link :to="{ name: 'jobs' }" class="home">Fulmen</router-link>
    <p class="what">Home charge point circuits, from the supply to the certificate</p>
  </header>
  <main>
    <h1>Is this certificate genuine?</h1>
    <p>
      Choose the PDF as you got it. Its number, the job inside and every page are held against what this store issued.
      It is not kept.
    </p>
    <input ref="input" type="file" accept=".pdf,application/pdf" hidden data-testid="paper" @change="look" />
    <v-btn color="ink" size="large" :loading="busy" @click="input?.click()">Choose the PDF</v-btn>
    <p v-if="busy" role="status">Every page of {{ name }} is looked at…</p>
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
    <section
      v-if="found"
      class="found"
      :class="{ fine: FINE.includes(found.verdict), bad: BAD.includes(found.verdict) }"
      aria-live="polite"
    >
      <h2 class="headline">{{ found.title }}</h2>
      <p>{{ found.words }}</p>
      <p class="quiet">{{ name }}</p>
    </section>
    <footer><CautionNote /></footer>
  </main>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 18px;
  background: rgb(var(--v-theme-bar));
  color: #e6e0d2;
  min-height: 46px;
  padding: 6px 24px;
}
.bar .home {
  color: #fff;
  font-weight: 700;
  text-decoration: none;
  padding: 10px 0;
}
main {
  max-width: 760px;
  margin: 0 auto;
  padding: 26px 20px;
  display: grid;
  gap: 18px;
  justify-items: start;
}
.found {
  border-left: 6px solid var(--needs);
  background: var(--sheet);
  padding: 14px 18px;
  width: 100%;
}
.found.fine {
  border-color: var(--meets);
}
.found.bad {
  border-color: var(--falls_short);
}
.failed {
  border-left: 4px solid var(--falls_short);
  padding-left: 10px;
}
footer {
  margin-top: 30px;
}
</style>
