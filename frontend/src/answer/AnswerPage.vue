<script setup lang="ts">
// The householder's page: a few plain questions and photos, from a phone, without an account.
import { computed } from 'vue'

import { dayAndTime } from '../shared/format'
import AnswerQuestion from './AnswerQuestion.vue'
import { useAnswers } from './useAnswers'

const props = defineProps<{ secret: string }>()

document.title = 'About your charge point · Fulmen'
const { page, ended, failed, busy, open, give, send } = useAnswers(props.secret)
const again = computed(() => page.value?.questions.filter((one) => one.state === 'asked_again') ?? [])
const answered = computed(
  () => page.value?.questions.filter((one) => one.state !== 'open' && one.state !== 'asked_again').length ?? 0,
)
</script>

<template>
  <main>
    <div v-if="ended" class="ended" role="alert">
      <h1>This link does not open</h1>
      <p>{{ ended }}</p>
      <p><v-btn variant="outlined" @click="open">Try again</v-btn></p>
    </div>
    <template v-else-if="page">
      <h1>About your charge point</h1>
      <p>
        {{ page.asked_by }} asks. Answer what you can; skip what you don’t know. Each answer is sent at once, and can be
        changed until {{ dayAndTime(page.expires_at) }}.
      </p>
      <p class="care" role="note">
        Open no covers that need a tool. Touch no wires. If something is hot, buzzes or smells burnt, keep away and ring
        your electrician.
      </p>
      <p class="count" role="status">
        {{ answered }} of {{ page.questions.length }} answered<template v-if="again.length"
          >, {{ again.length }} asked again</template
        >
      </p>
      <ol>
        <AnswerQuestion
          v-for="one in page.questions"
          :key="one.question.key"
          :asked="one"
          :secret="secret"
          :error="failed[one.question.key] ?? ''"
          :busy="busy === one.question.key"
          @give="give(one.question.key, $event)"
          @send="send(one.question.key, $event)"
        />
      </ol>
      <p class="count">
        {{
          answered === page.questions.length
            ? 'That is all. Thank you; you can close this page.'
            : 'Done what you can? You can close this page; what you gave has arrived.'
        }}
      </p>
    </template>
    <p v-else>Opening…</p>
  </main>
</template>

<style scoped>
main {
  max-width: 620px;
  margin: 0 auto;
  padding: 20px 16px 40px;
  display: grid;
  gap: 12px;
}
.care {
  border-left: 4px solid var(--falls_short);
  background: var(--sheet);
  padding: 8px 12px;
}
.count {
  font-weight: 700;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 14px;
}
.ended {
  display: grid;
  gap: 12px;
  padding-top: 30px;
}
</style>
