<script setup lang="ts">
// Settling what is your call: the reason is kept with name and day and goes on the certificate.
import { computed, ref, useId, watch } from 'vue'

import type { Finding } from '../api/types'
import { useJob } from '../job/useJob'
import { hereAndNow, today } from '../shared/format'
import { usePerson } from '../shared/usePerson'

const props = defineProps<{ finding: Finding }>()

const store = useJob()
const { name } = usePerson()
const editing = ref(false)
const group = useId()
const reason = ref('')
const condition = ref('')
// A reason given before the facts changed, or before this version, is offered again; it counts once it is kept.
const earlier = computed(() => store.job!.decisions.findLast((decision) => decision.key === props.finding.key))
watch(
  () => props.finding.decision ?? earlier.value,
  (one) => {
    reason.value = one?.reason ?? ''
    condition.value = one?.condition ?? ''
  },
  { immediate: true },
)

const rests = computed(
  () => props.finding.conditions.find((one) => one.key === props.finding.decision?.condition)?.words,
)
const ready = computed(
  () =>
    reason.value.trim().length >= 3 &&
    name.value.trim().length >= 2 &&
    (!props.finding.conditions.length || props.finding.conditions.some((one) => one.key === condition.value)),
)

function keep(): void {
  const { key, basis, detail: about } = props.finding
  const others = store.job!.decisions.filter((decision) => decision.key !== key)
  const decision = {
    key,
    about,
    basis,
    condition: condition.value,
    reason: reason.value.trim(),
    name: name.value.trim(),
    decided_on: today(),
    decided_at: hereAndNow(),
  }
  store.change('decisions', [...others, decision])
  editing.value = false
}
</script>

<template>
  <div class="decision">
    <p v-if="finding.decision && !editing">
      <template v-if="rests">{{ rests }}. </template>“{{ finding.decision.reason }}”
      <span class="quiet">{{ finding.decision.name }}, {{ finding.decision.decided_on }}</span>
      <button type="button" class="link" @click="editing = true">Change</button>
    </p>
    <form v-else @submit.prevent="keep">
      <p v-if="earlier && !finding.decision" class="quiet small">
        Said on {{ earlier.decided_on }}, on other facts or in an older file. Does it still hold?
      </p>
      <fieldset v-if="finding.conditions.length">
        <legend>Which of these makes it sound here?</legend>
        <label v-for="one in finding.conditions" :key="one.key">
          <input v-model="condition" type="radio" :name="group" :value="one.key" /> {{ one.words }}
        </label>
      </fieldset>
      <v-textarea v-model="reason" label="Why is it so?" rows="1" maxlength="1000" />
      <v-text-field v-model="name" label="Your name" maxlength="200" />
      <v-btn type="submit" color="ink" :disabled="!ready">Keep the reason</v-btn>
    </form>
  </div>
</template>

<style scoped>
.decision {
  padding: 0 0 10px;
  font-size: 0.9rem;
}
form {
  display: grid;
  gap: 8px;
}
fieldset {
  border: 0;
  padding: 0;
}
legend {
  font-weight: 700;
  padding: 0 0 4px;
}
label {
  display: flex;
  gap: 8px;
  align-items: flex-start;
  min-height: 44px;
  padding: 8px 0;
}
label input {
  width: 20px;
  height: 20px;
  flex: none;
  accent-color: var(--copper);
}
.link {
  margin-left: 8px;
}
</style>
