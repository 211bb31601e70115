<script setup lang="ts">
// Settling what is your call: the reason is kept with name and day and goes on the certificate.
import { computed, ref, watch } from 'vue'

import type { Finding } from '../api/types'
import { useJob } from '../job/useJob'
import { hereAndNow, today } from '../shared/format'
import { usePerson } from '../shared/usePerson'

const props = defineProps<{ finding: Finding }>()

const store = useJob()
const { name } = usePerson()
const editing = ref(false)
const reason = ref('')
// A reason given before the facts changed, or before this version, is offered again; it counts once it is kept.
const earlier = computed(() => store.job!.decisions.findLast((decision) => decision.key === props.finding.key))
watch(
  () => props.finding.decision ?? earlier.value,
  (one) => (reason.value = one?.reason ?? ''),
  { immediate: true },
)

function keep(): void {
  const { key, basis, detail: about } = props.finding
  const others = store.job!.decisions.filter((decision) => decision.key !== key)
  const decision = {
    key,
    about,
    basis,
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
      “{{ finding.decision.reason }}”
      <span class="quiet">{{ finding.decision.name }}, {{ finding.decision.decided_on }}</span>
      <button type="button" class="link" @click="editing = true">Change</button>
    </p>
    <form v-else @submit.prevent="keep">
      <p v-if="earlier && !finding.decision" class="quiet small">
        Said on {{ earlier.decided_on }}, on other facts or in an older file. Does it still hold?
      </p>
      <v-textarea v-model="reason" label="Why is it so?" rows="1" maxlength="1000" />
      <v-text-field v-model="name" label="Your name" maxlength="200" />
      <v-btn type="submit" color="ink" :disabled="reason.trim().length < 3 || name.trim().length < 2"
        >Keep the reason</v-btn
      >
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
.link {
  margin-left: 8px;
}
</style>
