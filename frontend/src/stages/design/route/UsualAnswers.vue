<script setup lang="ts">
// What this firm takes as usual where nobody has said: kept for every job, taken by one press, printed so on the paper.
import { onMounted, ref } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { Change, UsualAnswers } from '../../../api/types'
import { useJob } from '../../../job/useJob'

const props = defineProps<{ answers: Record<string, { words: string; value: unknown }> }>()

const store = useJob()
const usual = ref<UsualAnswers>()
const open = ref(false)
const failed = ref('')
const isUsual = (fact: string) => (usual.value as Record<string, unknown> | undefined)?.[fact] != null

async function tried(act: () => Promise<void>): Promise<void> {
  failed.value = ''
  try {
    await act()
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
// One after the other: two ticks in a hurry are both kept, and are kept before they are taken.
let keeping: Promise<void> = Promise.resolve()
const keep = (fact: string, on: boolean) =>
  (keeping = keeping.then(() =>
    tried(async () => {
      const body = { ...usual.value, [fact]: on ? props.answers[fact]!.value : null } as UsualAnswers
      usual.value = await answer<UsualAnswers>(api.PUT('/api/v1/usual-answers', { body }))
    }),
  ))
const take = (): Promise<void> =>
  tried(async () => {
    await keeping
    const job = store.judged!
    const asked = api.POST('/api/v1/usual-answers/changes', { body: { job } })
    const { changes } = await answer<{ changes: Change[] }>(asked)
    // Sections that were cut or moved meanwhile have other places now: ask again.
    if (store.judged !== job) return take()
    if (changes.length) store.apply('what is usual', changes)
  })
onMounted(() => tried(async () => void (usual.value = await answer(api.GET('/api/v1/usual-answers')))))
</script>

<template>
  <div class="usual">
    <button v-if="Object.keys(answers).some(isUsual)" type="button" class="link" @click="take">
      Take my usual answers
    </button>
    <button type="button" class="link" :aria-expanded="open" @click="open = !open">What is usual here</button>
    <fieldset v-if="open">
      <legend>Taken as usual on every job where nobody says otherwise, and printed so</legend>
      <label v-for="(one, fact) in answers" :key="fact">
        <input
          type="checkbox"
          :checked="isUsual(fact)"
          @change="keep(fact, ($event.target as HTMLInputElement).checked)"
        />
        {{ one.words }}
      </label>
    </fieldset>
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
  </div>
</template>

<style scoped>
.usual {
  flex: 1 0 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  align-items: center;
}
.usual .link {
  min-height: 44px;
}
fieldset {
  flex: 1 0 100%;
}
legend {
  font-size: 0.88rem;
  color: var(--quiet);
}
label {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
}
input {
  width: 20px;
  height: 20px;
  accent-color: var(--copper);
}
</style>
