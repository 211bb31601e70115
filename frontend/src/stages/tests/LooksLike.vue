<script setup lang="ts">
// What readings that disagree look like together: the fault, where it is, how sure, and the one test that tells more.
import { computed } from 'vue'

import type { Candidate, Diagnosis } from '../../api/types'
import { useJob } from '../../job/useJob'
import { fixed } from '../../shared/format'
import { keyOf } from './useTestOrder'

const props = defineProps<{ stage: 'dead' | 'live' }>()
defineEmits<{ choose: [key: string] }>()

const store = useJob()
const findings = computed(
  () => new Map(store.evaluation?.findings.filter((one) => one.stage === props.stage).map((one) => [one.key, one])),
)
const found = computed(
  () => store.evaluation?.looks_like.filter((one) => one.explains.some((key) => findings.value.has(key))) ?? [],
)
const LEADS: Record<Diagnosis['sure'], string> = {
  sure: 'This looks like',
  likely: 'Most likely',
  open: 'It could be',
}
function where(one: Candidate): string {
  const step = store.steps.find((each) => each.step === one.step && each.subject === one.subject)
  const size = one.size_ohm === null ? '' : `about ${fixed(one.size_ohm, 2)} Ω`
  return [step?.title ?? '', one.whose, size].filter(Boolean).join(', ')
}
const explained = (one: Diagnosis) =>
  one.explains
    .flatMap((key) => findings.value.get(key)?.title ?? [])
    .filter((title, at, all) => all.indexOf(title) === at)
</script>

<template>
  <section v-if="found.length" class="looks-like" aria-label="What the readings look like">
    <article v-for="one in found" :key="one.explains[0]">
      <template v-for="(candidate, at) in one.candidates" :key="candidate.fault + candidate.subject + candidate.step">
        <h3>
          <span class="quiet">{{ at ? 'or' : LEADS[one.sure] }}</span> {{ candidate.words
          }}<span v-if="where(candidate)" class="quiet">: {{ where(candidate) }}</span>
        </h3>
        <p v-if="!at" class="quiet">Why it matters: {{ candidate.why }}.</p>
        <p v-if="!at || !one.further">{{ candidate.look }}</p>
      </template>
      <p v-if="one.further" class="further">
        <button type="button" class="link" @click="$emit('choose', keyOf(one.further))">{{ one.further.title }}</button>
        tells the two apart.
      </p>
      <p class="quiet">It would explain: {{ explained(one).join('; ') }}.</p>
    </article>
  </section>
</template>

<style scoped>
.looks-like {
  padding: 18px 20px 0;
  display: grid;
  gap: 12px;
}
article {
  border: 1px solid var(--line);
  border-left: 4px solid var(--your_call);
  border-radius: 6px;
  padding: 10px 14px;
  display: grid;
  gap: 6px;
  font-size: 0.88rem;
}
h3 {
  font-size: 0.95rem;
}
h3 .quiet {
  font-weight: 400;
}
@media (max-width: 839px) {
  .further .link {
    min-height: 44px;
  }
}
</style>
