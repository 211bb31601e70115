<script setup lang="ts">
// The whole route in one line: a letter and a length for each section.
import { computed, ref } from 'vue'

import { useJob } from '../../../job/useJob'
import { useCatalogue } from '../../../shared/useCatalogue'

const props = defineProps<{ failed: string; start: boolean; write: (text: string) => Promise<boolean> }>()

const store = useJob()
const { catalogue } = useCatalogue()
const text = ref('')
const letters = computed(() => catalogue.value?.shorthand ?? [])

async function send(): Promise<void> {
  if (text.value.trim() && (await props.write(text.value))) text.value = ''
}
</script>

<template>
  <form class="shorthand" @submit.prevent="send">
    <v-text-field
      v-model="text"
      label="Write the route: letter and metres"
      placeholder="u4.2 t.4 c12s b19"
      :error-messages="failed"
      persistent-placeholder
      :autofocus="start"
      autocomplete="off"
      autocapitalize="none"
      spellcheck="false"
      class="line"
    />
    <v-btn type="submit" variant="outlined" :disabled="!text.trim()">Add</v-btn>
    <p class="quiet small">
      <span v-for="one in letters" :key="one.value" class="key"
        ><kbd>{{ one.value }}</kbd> {{ one.words }}</span
      >
      <span class="key"><kbd>s</kbd> after a number: steps of {{ store.job!.site.stride_m }} m</span>
    </p>
  </form>
</template>

<style scoped>
.shorthand {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px 10px;
  align-items: start;
  margin: 10px 0;
}
.line :deep(input) {
  font-family: var(--figures);
}
p {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
.key {
  white-space: nowrap;
}
</style>
