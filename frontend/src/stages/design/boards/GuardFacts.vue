<script setup lang="ts">
// The facts of one guard, edited where it stands; what nobody has looked at stays empty.
import { computed } from 'vue'

import type { Guard } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { guardWords } from '../../../run/figureWords'
import { POLES, VOLTS } from '../../../shared/fields/guardChoices'
import JobField from '../../../shared/fields/JobField.vue'
import OpenPenFields from '../../../shared/fields/OpenPenFields.vue'
import { rcdWords, usualRcds } from '../../../shared/fields/rcds'
import { valueAt } from '../../../shared/paths'
import { useBothWays } from '../useBothWays'
import TreeActs from './TreeActs.vue'
import { useGuardWords } from './useGuardWords'

const props = defineProps<{ path: string }>()

const store = useJob()
const { viewAt } = useGuardWords()
const guard = computed(() => valueAt(store.job, props.path) as Guard)
const told = computed(() => viewAt(props.path))
const rcds = computed(() => [
  { value: null, words: 'not seen yet' },
  ...usualRcds(guard.value.rcd).map((value) => ({ value, words: rcdWords(value) })),
])
const bothWays = useBothWays()
const FITTED = [
  { value: true, words: 'new with this job' },
  { value: false, words: 'there already' },
]

function say(sensing: 'met_voltage' | 'line_neutral_window'): void {
  // What is ordered is ordered as usual; what was found there is read off it.
  const usual = guard.value.fitted_with_this_job
  const facts = {
    opens_protective_conductor: usual || null,
    opens_within_s: usual ? 5 : null,
    closes_by_hand: usual || null,
  }
  store.change(`${props.path}.open_pen`, { sensing, ...facts })
}
</script>

<template>
  <section class="facts" :aria-label="told?.name ?? 'Device'">
    <p v-if="told" class="quiet small">{{ guardWords(told) }}.</p>
    <div class="fields">
      <JobField
        v-if="guard.kind === 'rccb'"
        :path="`${path}.rcd`"
        label="Type and current, as marked"
        kind="choice"
        :items="rcds"
      />
      <JobField :path="`${path}.rating_a`" label="Rated current" kind="number" unit="A" />
      <JobField
        :path="`${path}.carries_by_maker`"
        label="Its maker takes what hangs behind"
        kind="choice"
        choice="Seen"
        class="wide"
      />
      <JobField v-if="bothWays" :path="`${path}.both_ways`" label="Opens either way" kind="choice" choice="Seen" />
      <JobField :path="`${path}.poles`" label="Poles it opens" kind="choice" :items="POLES" />
      <JobField
        v-if="guard.kind === 'switch' || store.job!.supply.phases === 3"
        :path="`${path}.voltage_v`"
        label="Its voltage"
        kind="choice"
        :items="VOLTS"
      />
      <template v-if="guard.kind === 'switch'">
        <JobField :path="`${path}.standard`" label="Its standard, as marked" />
        <JobField :path="`${path}.location`" label="Where it stands" />
      </template>
      <OpenPenFields v-if="guard.kind === 'open_pen_device' && guard.open_pen" :path="`${path}.open_pen`" />
      <JobField :path="`${path}.fitted_with_this_job`" label="It is" kind="choice" :items="FITTED" class="wide" />
    </div>
    <p v-if="guard.kind === 'open_pen_device' && !guard.open_pen" class="say">
      What does it watch?
      <button type="button" class="link" @click="say('met_voltage')">earth terminal to true earth</button>
      <button type="button" class="link" @click="say('line_neutral_window')">line to neutral</button>
    </p>
    <TreeActs :node="guard.id" :name="told?.short ?? 'a device'" />
  </section>
</template>

<style src="./tree.css" />
<style scoped>
.say {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
}
</style>
