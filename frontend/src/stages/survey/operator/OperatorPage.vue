<script setup lang="ts">
// What the network operator must be told and when; the form; letters; the stand-in desk.
import { mdiCheck, mdiClose, mdiHelp } from '@mdi/js'
import { computed, ref, watch } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { OperatorForm } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { STATE_WORDS } from './stateWords'
import DeskPanel from './DeskPanel.vue'
import LetterList from './LetterList.vue'

const store = useJob()
const matter = computed(() => store.evaluation!.operator)
const form = ref<OperatorForm>()
const failed = ref('')
const SHAPE = { yes: mdiCheck, no: mdiClose, not_known: mdiHelp }
const WORD = { yes: 'holds', no: 'does not hold', not_known: 'not known' }

async function read(): Promise<void> {
  try {
    form.value = await answer<OperatorForm>(
      api.GET('/api/v1/jobs/{job_id}/operator-form', { params: { path: { job_id: store.id } } }),
    )
    failed.value = ''
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}
// The form is made from the stored job, so it is read again whenever the job has been stored.
watch(() => store.version + store.job!.letters.length, read, { immediate: true })
const address = (file: string) => `/api/v1/jobs/${store.id}/${file}`
</script>

<template>
  <article class="middle">
    <h2 class="headline">{{ matter.route === 'notify_after' ? 'Notify after' : 'Apply before' }}</h2>
    <p>{{ matter.deadline_words }}</p>
    <p class="state" :class="{ hold: matter.hold }">
      <b>{{ matter.hold ? 'Work must wait.' : STATE_WORDS[matter.state].title }}</b>
      {{ matter.hold || matter.state !== 'not_sent' ? STATE_WORDS[matter.state].text : '' }}
    </p>
    <section aria-label="Why">
      <h3>Notifying after asks that all of these hold</h3>
      <ul class="reasons">
        <li v-for="reason in matter.reasons" :key="reason.text" :class="reason.holds">
          <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="SHAPE[reason.holds]" /></svg
          ><span
            >{{ reason.text }} <span class="quiet">{{ WORD[reason.holds] }}</span></span
          >
        </li>
      </ul>
    </section>
    <section aria-label="The form">
      <h3>The form</h3>
      <p v-if="failed" class="missing" role="alert">{{ failed }}</p>
      <p v-if="form?.missing.length" class="missing">
        <b>The operator will ask for:</b> {{ form.missing.join(', ') }}.
      </p>
      <p class="links">
        <a :href="address('operator-form.pdf')" target="_blank" class="link">Form as PDF</a>
        <a :href="address('operator-form')" target="_blank" class="link">as JSON</a>
        <a :href="address('dates.ics')" class="link">Dates for your calendar (.ics)</a>
      </p>
      <p class="quiet small">Use the operator’s own form where it has one; this holds what it asks for.</p>
    </section>
    <LetterList />
    <DeskPanel />
  </article>
</template>

<style scoped>
article :deep(h3) {
  font-size: 1rem;
  padding-bottom: 6px;
}
.state {
  border-left: 4px solid var(--meets);
  background: var(--sheet);
  padding: 8px 12px;
}
.state.hold {
  border-left-color: var(--falls_short);
}
.reasons {
  list-style: none;
  margin: 0;
  padding: 0;
}
.reasons li {
  display: flex;
  gap: 8px;
  padding: 5px 0;
}
svg {
  width: 20px;
  height: 20px;
  flex: none;
  fill: var(--needs);
}
.yes svg {
  fill: var(--meets);
}
.no svg {
  fill: var(--falls_short);
}
.missing {
  border-left: 4px solid var(--needs);
  background: var(--sheet);
  padding: 6px 12px;
}
.links {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  padding: 4px 0;
}
.links a {
  text-decoration: none;
}
</style>
