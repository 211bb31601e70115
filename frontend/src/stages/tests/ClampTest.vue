<script setup lang="ts">
// The load limit proven: how the clamp sits, then a known load switched on and what the unit shows of it.
import { computed } from 'vue'

import type { ClampProof } from '../../api/types'
import { useJob } from '../../job/useJob'
import JobField from '../../shared/fields/JobField.vue'
import TapField from '../../shared/fields/TapField.vue'
import { usePerson } from '../../shared/usePerson'
import VerdictMark from '../../shared/VerdictMark.vue'
import { useClamp } from './useClamp'

const store = useJob()
const person = usePerson()
const point = computed(() => store.pointIndex)
const proof = computed(() => store.job!.charge_points[point.value]?.clamp_proof ?? null)
const at = (field: string) => `charge_points.${point.value}.clamp_proof.${field}`
const { clamp: finding } = useClamp()
const limit = computed(() => store.job!.supply.load_limit_a)
const named = computed(() => person.name.value.trim().length > 1)

const BLANK: ClampProof = {
  limit_set_a: null,
  arrow_with_current: 'not_seen',
  round_line_only: 'not_seen',
  wire_pair: '',
  known_load_a: null,
  test_limit_a: null,
  shown_without_a: null,
  shown_with_a: null,
  shown_with_car_a: null,
  offered_without_a: null,
  offered_with_a: null,
  follows_s: null,
  reports_fault: 'not_seen',
  tested_by: null,
  tested_at: null,
}
const begin = () => store.change(`charge_points.${point.value}.clamp_proof`, BLANK, 'the clamp’s test begun')
const sign = () =>
  store.sign('the clamp’s test, signed', [
    { field: at('tested_by'), value: person.name.value.trim() },
    { field: at('tested_at'), value: new Date().toISOString() },
  ])
</script>

<template>
  <section class="middle" aria-labelledby="clamp-title">
    <p class="count">After the live tests, at the charge point and the intake</p>
    <h2 id="clamp-title" class="headline">Load limit, clamp</h2>
    <p>
      Until it is proven the {{ limit }} A limit is open. Set the limit, seat the clamp, switch on something large and
      see the car turn down.
    </p>
    <v-btn v-if="!proof" color="ink" class="begin" @click="begin">Begin the test</v-btn>
    <template v-else>
      <h3>How it sits</h3>
      <JobField :path="at('limit_set_a')" label="Limit the unit is set to" kind="number" unit="A" />
      <TapField
        :path="at('arrow_with_current')"
        label="Its arrow points with the current, towards the house?"
        choice="Seen"
      />
      <TapField :path="at('round_line_only')" label="Round the incoming line tail alone?" choice="Seen" />
      <JobField :path="at('wire_pair')" label="On which pair; two doubled?" />
      <h3>What it shows</h3>
      <div class="pair">
        <JobField
          :path="at('known_load_a')"
          label="Known load switched on; a 9 kW shower is 39 A"
          kind="number"
          unit="A"
        />
        <JobField :path="at('test_limit_a')" label="Limit turned down for the test, if it was" kind="number" unit="A" />
        <JobField :path="at('shown_without_a')" label="House current shown, load off" kind="number" unit="A" />
        <JobField
          :path="at('shown_with_a')"
          label="House current shown, load on, with its sign"
          kind="number"
          unit="A"
        />
        <JobField :path="at('shown_with_car_a')" label="Shown while the car alone charges" kind="number" unit="A" />
        <JobField :path="at('offered_without_a')" label="Offered to the car, load off" kind="number" unit="A" />
        <JobField
          :path="at('offered_with_a')"
          label="Offered to the car, load on; 0 if it paused"
          kind="number"
          unit="A"
        />
        <JobField :path="at('follows_s')" label="How soon it turned down" kind="number" unit="s" />
      </div>
      <TapField :path="at('reports_fault')" label="Does the unit report a fault of its clamp?" choice="Seen" />
      <p v-if="proof.tested_by">Tested by {{ proof.tested_by }}.</p>
      <v-text-field v-else v-model="person.name.value" label="Tested by" maxlength="200" autocomplete="name" />
      <v-btn v-if="!proof.tested_by" color="ink" class="begin" :disabled="!named" @click="sign"
        >Keep the test under your name</v-btn
      >
    </template>
    <p v-if="finding" class="told" aria-live="polite">
      <VerdictMark :verdict="finding.verdict" :waits-for="finding.waits_for" /> {{ finding.detail }}
      <b v-if="finding.remedy">{{ finding.remedy }}</b>
    </p>
  </section>
</template>

<style scoped>
.count {
  font-weight: 700;
  color: var(--quiet);
}
.begin {
  justify-self: start;
}
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(210px, 1fr));
  gap: 10px;
}
.told {
  border-left: 4px solid var(--copper);
  background: var(--sheet);
  padding: 8px 12px;
}
</style>
