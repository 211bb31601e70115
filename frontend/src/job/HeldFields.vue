<script setup lang="ts">
// What can't be taken: each by its sentence, with the way to it and the way back; everything else is saved.
import { valueAt } from '../shared/paths'
import { isPlaceKnown, leadTo } from '../shared/fieldPlaces'
import type { Held } from './useHeldBack'
import { useJob } from './useJob'

const store = useJob()
const takeBack = (one: Held) => store.change(one.at, valueAt(store.stored, one.at))
</script>

<template>
  <section v-if="store.held.length" class="held" aria-label="Can't be saved">
    <p v-for="one in store.held" :key="one.at" role="alert">
      {{ one.message }}
      <button v-if="isPlaceKnown(one.field)" type="button" class="link" @click="leadTo(store.id, one.field)">
        Go to it
      </button>
      <button type="button" class="link" @click="takeBack(one)">Take it back</button>
    </p>
  </section>
</template>

<style scoped>
.held {
  padding: 4px 20px;
  background: var(--sheet);
  border-bottom: 3px solid var(--falls_short);
}
p {
  padding: 4px 0;
}
.link {
  margin-left: 8px;
}
</style>
