<script setup lang="ts">
// How it ended: what happened, the marks, what was hidden and what would have told.
import type { Marks, PracticeState } from '../api/types'

defineProps<{ state: PracticeState; marks: Marks }>()

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
</script>

<template>
  <section class="end" aria-labelledby="end-title">
    <div v-if="state.mishap" class="mishap" role="alert">
      <h2 class="headline">{{ state.mishap.title }}</h2>
      <p>{{ state.mishap.told }}</p>
      <p v-if="state.mishap.then"><b>Then:</b> {{ state.mishap.then }}</p>
    </div>
    <h2 id="end-title" class="headline">
      <span class="figure">{{ marks.total }}</span> of 100
    </h2>
    <ul class="marks">
      <li v-for="one in marks.marks" :key="one.title">
        <b>{{ one.title }}</b>
        <span class="figure">{{ one.got }} of {{ one.of }}</span>
        <span>{{ one.told }}</span>
      </li>
    </ul>
    <article v-for="one in marks.explained" :key="one.words" class="hidden">
      <h3>
        {{ capital(one.words)
        }}<template v-if="one.size"
          >, <span class="figure">{{ one.size }}</span></template
        >
      </h3>
      <p>{{ capital(one.place) }}. {{ one.tells }}</p>
      <p><b>Why it matters:</b> {{ one.why }}.</p>
      <p v-if="one.shown_by.length"><b>Shown by:</b> {{ one.shown_by.join('; ') }}.</p>
    </article>
    <p v-if="!marks.explained.length" class="hidden">Nothing was wrong with this house.</p>
    <router-link :to="{ name: 'practice' }" class="link">Another exercise</router-link>
  </section>
</template>

<style scoped>
.end {
  display: grid;
  gap: 12px;
  border-bottom: 1px solid var(--line);
  padding-bottom: 14px;
}
.mishap {
  border-left: 6px solid var(--falls_short);
  background: color-mix(in srgb, var(--falls_short) 10%, var(--sheet));
  padding: 10px 14px;
  display: grid;
  gap: 4px;
}
.marks {
  list-style: none;
  margin: 0;
  padding: 0;
}
.marks li {
  display: grid;
  grid-template-columns: 160px 90px minmax(0, 1fr);
  gap: 4px 12px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding: 5px 0;
}
.hidden {
  border-left: 4px solid var(--copper);
  background: var(--sheet);
  padding: 8px 12px;
}
@media (max-width: 839px) {
  .marks li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .marks li > :last-child {
    grid-column: 1 / -1;
  }
}
</style>
