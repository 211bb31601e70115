<script setup lang="ts">
// Letters to and from the operator. They are only ever added; a stand-in's letter says so.
import { computed, ref } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { JobState, Letter } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { today } from '../../../shared/format'
import { useCatalogue } from '../../../shared/useCatalogue'
import { usePhotos } from '../usePhotos'

const store = useJob()
const { options, words } = useCatalogue()
const { photos } = usePhotos(() => 'cut_out')
const letters = computed(() => store.job!.letters)
const adding = ref(false)
const kind = ref<Letter['kind']>('notice')
const dated = ref(today())
const text = ref('')
const bookedOn = ref('')
const photo = ref('')
const failed = ref('')
const books = computed(() => kind.value === 'fuse_upgrade_booked' || kind.value === 'unlooping_booked')
const pictures = computed(() => [
  { value: '', words: 'none' },
  ...photos.value.map((one, index) => ({ value: one.sha256, words: `photo ${index + 1} of the cut-out` })),
])

async function keep(): Promise<void> {
  const body = {
    kind: kind.value,
    dated: dated.value,
    text: text.value,
    booked_on: books.value && bookedOn.value ? bookedOn.value : null,
    photo: photo.value,
  }
  try {
    await store.act('a letter', () =>
      answer<JobState>(api.POST('/api/v1/jobs/{job_id}/letters', { params: { path: { job_id: store.id } }, body })),
    )
    adding.value = false
    text.value = ''
    failed.value = ''
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
</script>

<template>
  <section aria-label="Letters">
    <h3>Letters</h3>
    <ol v-if="letters.length">
      <li v-for="(letter, index) in letters" :key="index">
        <p>
          <b>{{ words('LetterKind', letter.kind) }}</b> <span class="figure">{{ letter.dated }}</span>
          <span v-if="letter.stand_in" class="stand-in">stand-in</span>
        </p>
        <p v-if="letter.booked_on">
          Operator’s work booked for <span class="figure">{{ letter.booked_on }}</span>
        </p>
        <p class="quiet">
          {{ letter.text }} <span class="about">About: {{ store.evaluation!.operator.letters_about[index] }}</span>
        </p>
      </li>
    </ol>
    <p v-else class="quiet">None kept yet.</p>
    <form v-if="adding" @submit.prevent="keep">
      <v-select
        v-model="kind"
        label="What it says"
        :items="options('LetterKind')"
        item-title="words"
        item-value="value"
      />
      <v-text-field v-model="dated" label="Dated" type="date" />
      <v-text-field v-if="books" v-model="bookedOn" label="Operator’s work booked for" type="date" />
      <v-select v-model="photo" label="Photo of it" :items="pictures" item-title="words" item-value="value" />
      <v-textarea v-model="text" label="What it says, in short" rows="1" maxlength="4000" class="wide" />
      <p v-if="failed" role="alert" class="failed wide">{{ failed }}</p>
      <div class="wide buttons">
        <v-btn type="submit" color="ink">Keep the letter</v-btn
        ><v-btn variant="text" @click="adding = false">Leave it</v-btn>
      </div>
      <p class="quiet small wide">Kept as it is: letters can’t be changed after.</p>
    </form>
    <v-btn v-else variant="outlined" @click="adding = true">Keep a letter</v-btn>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
li {
  border-top: 1px solid var(--line);
  padding: 8px 0;
}
.about {
  display: block;
  font-size: 0.85rem;
}
.stand-in {
  border: 1.5px dashed var(--quiet);
  border-radius: 4px;
  padding: 0 6px;
  font-size: 0.85rem;
  font-weight: 700;
}
form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 220px), 1fr));
  gap: 12px;
  padding-top: 8px;
}
.wide {
  grid-column: 1 / -1;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
