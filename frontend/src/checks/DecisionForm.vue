<script setup lang="ts">
// Settling what is your call: the reason is kept with name and day and goes on the certificate.
import { computed, ref, useId, watch } from 'vue'

import { asProblem } from '../api/client'
import type { Finding } from '../api/types'
import { useJob } from '../job/useJob'
import { hereAndNow } from '../shared/format'
import { usePerson } from '../shared/usePerson'
import { useStandingReasons } from './useStandingReasons'

const props = defineProps<{ finding: Finding }>()

const store = useJob()
const { name } = usePerson()
const { standingFor, keep: keepReason, forget, failed } = useStandingReasons()
const editing = ref(false)
const group = useId()
const reason = ref('')
const condition = ref('')
// A reason given before the facts changed, or before this version, is offered again; it counts once it is kept.
const isOf = (one: { key: string }) => one.key === props.finding.key
const earlier = computed(() => store.job!.decisions.findLast(isOf))
const elsewhere = computed(() => store.job!.elsewhere.decisions.findLast(isOf))
const offered = computed(() => props.finding.decision ?? earlier.value ?? elsewhere.value)
// By what is said, not by which object says it: a job that was heard anew takes no word from who is typing.
watch(
  [() => offered.value?.reason ?? '', () => offered.value?.condition ?? ''],
  ([said, rests]) => {
    reason.value = said
    condition.value = rests
  },
  { immediate: true },
)

const standing = computed(() => standingFor(props.finding))
const keepStanding = ref(false)
// Other calls of the same rule on the same facts: one reason may serve them, where somebody says so.
const others = computed(() => (store.evaluation?.findings ?? []).filter((one) => props.finding.alike.includes(one.key)))
const servesOthers = ref(false)
const busy = ref(false)
const notKept = ref('')
const rests = computed(
  () => props.finding.conditions.find((one) => one.key === props.finding.decision?.condition)?.words,
)
const ready = computed(
  () =>
    !busy.value &&
    reason.value.trim().length >= 3 &&
    name.value.trim().length >= 2 &&
    (!props.finding.conditions.length || props.finding.conditions.some((one) => one.key === condition.value)),
)

async function keep(): Promise<void> {
  const call = {
    finding: props.finding.key,
    condition: condition.value,
    standing: reason.value.trim() === standing.value?.reason || keepStanding.value,
    reason: reason.value.trim(),
    name: name.value.trim(),
    decided_at: hereAndNow(),
  }
  busy.value = true
  notKept.value = ''
  try {
    const alike = servesOthers.value ? others.value.map((one) => one.key) : []
    await store.settleCall(call)
    for (const key of alike) await store.settleCall({ ...call, finding: key })
    if (keepStanding.value) void keepReason(props.finding, call.reason, call.name)
    editing.value = false
  } catch (error) {
    notKept.value = asProblem(error).detail
  }
  busy.value = false
}
</script>

<template>
  <div class="decision">
    <p v-if="finding.decision && !editing">
      <template v-if="rests">{{ rests }}. </template>“{{ finding.decision.reason }}”
      <span v-if="finding.decision.standing" class="quiet">standing reason,</span>
      <span class="quiet">{{ finding.decision.name }}, as typed, {{ finding.decision.decided_on }}</span>
      <button type="button" class="link" @click="editing = true">Change</button>
    </p>
    <form v-else @submit.prevent="keep">
      <p v-if="earlier && !finding.decision" class="quiet small">
        Said on {{ earlier.decided_on }}, on other facts. Does it still hold?
      </p>
      <p v-else-if="elsewhere && !finding.decision" class="quiet small">
        Said elsewhere, by {{ elsewhere.name }}, {{ elsewhere.decided_on }}: it does not count here. Does it hold?
      </p>
      <fieldset v-if="finding.conditions.length">
        <legend>Which of these makes it sound here?</legend>
        <label v-for="one in finding.conditions" :key="one.key">
          <input v-model="condition" type="radio" :name="group" :value="one.key" /> {{ one.words }}
        </label>
      </fieldset>
      <p v-if="standing" class="small">
        Your standing reason where the same facts hold: “{{ standing.reason }}”
        <span class="quiet">{{ standing.name }}, {{ standing.kept_on }}</span>
        <button type="button" class="link" @click="reason = standing!.reason">Say so here too</button>
        <button type="button" class="link" @click="forget(finding)">Forget it</button>
      </p>
      <v-textarea v-model="reason" label="Why is it so?" rows="1" maxlength="1000" />
      <v-text-field v-model="name" label="Your name, kept as typed" maxlength="200" />
      <label v-if="!standing || reason.trim() !== standing.reason" class="keep">
        <input v-model="keepStanding" type="checkbox" /> Keep it as my standing reason wherever the same facts hold
      </label>
      <label v-if="others.length" class="keep">
        <input v-model="servesOthers" type="checkbox" /> The same for
        {{ others.map((one) => one.whose || one.title).join(', ') }}: the facts are the same
      </label>
      <v-btn type="submit" color="ink" :disabled="!ready" :loading="busy">Keep the reason</v-btn>
      <p v-if="notKept" class="failed" role="alert">{{ notKept }}</p>
      <p v-if="failed" class="failed" role="alert">The standing reason was not kept: {{ failed }}</p>
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
