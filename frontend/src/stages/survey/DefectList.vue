<script setup lang="ts">
// Defects found in passing at one stop: put right, or left and told the owner. They go on the certificate.
import { mdiDeleteOutline } from '@mdi/js'
import { computed, ref } from 'vue'

import type { Defect, Stop } from '../../api/types'
import { useJob } from '../../job/useJob'
import TapField from '../../shared/fields/TapField.vue'
import { useCatalogue } from '../../shared/useCatalogue'

const props = defineProps<{ stop: Stop }>()

const store = useJob()
const { catalogue } = useCatalogue()
const what = ref('')
const here = computed(() =>
  store.job!.defects.map((defect, index) => ({ defect, index })).filter((one) => one.defect.stop === props.stop),
)
const usual = computed(() => (catalogue.value?.usual_defects ?? []).filter((one) => one.stop === props.stop))
const YES_NO = [
  { value: true, words: 'yes' },
  { value: false, words: 'no' },
]

function add(): void {
  const text = (what.value ?? '').trim()
  if (text.length < 3) return
  const known = usual.value.find((one) => one.what === text)
  const defect: Defect = {
    what: text,
    stop: props.stop,
    outcome: 'left_told_owner',
    dangerous: known?.dangerous ?? false,
  }
  store.change('defects', [...store.job!.defects, defect], 'a defect added')
  what.value = ''
}
function remove(index: number): void {
  store.change(
    'defects',
    store.job!.defects.filter((_, place) => place !== index),
    'a defect taken out',
  )
}
</script>

<template>
  <section class="defects" aria-label="Defects found in passing">
    <h3>Found in passing</h3>
    <ul v-if="here.length">
      <li v-for="{ defect, index } in here" :key="index">
        <p>
          <b>{{ defect.what }}</b>
        </p>
        <v-btn
          :icon="mdiDeleteOutline"
          variant="text"
          size="small"
          :aria-label="`Take out: ${defect.what}`"
          @click="remove(index)"
        />
        <TapField :path="`defects.${index}.outcome`" label="What became of it" choice="DefectOutcome" />
        <TapField :path="`defects.${index}.dangerous`" label="Can it hurt somebody as it is?" :items="YES_NO" />
      </li>
    </ul>
    <form @submit.prevent="add">
      <v-combobox v-model="what" :items="usual.map((one) => one.what)" label="What did you find?" maxlength="200" />
      <v-btn type="submit" variant="outlined" :disabled="(what ?? '').trim().length < 3">Add</v-btn>
    </form>
    <p class="quiet small">Each goes into the certificate’s comments on the existing installation.</p>
  </section>
</template>

<style scoped>
h3 {
  font-size: 1rem;
  padding-bottom: 6px;
}
ul {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding: 8px 0 12px;
}
li > fieldset {
  grid-column: 1 / -1;
}
form {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: center;
}
.small {
  font-size: 0.85rem;
  padding-top: 6px;
}
</style>
