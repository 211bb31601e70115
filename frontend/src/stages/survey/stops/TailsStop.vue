<script setup lang="ts">
// The tails, stretch by stretch from the cut-out; usually one, several where they are split or pass an isolator.
import { computed } from 'vue'

import type { TailsStretch } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import FieldGroup from '../../../shared/fields/FieldGroup.vue'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import { useGuardActs } from '../../../shared/useGuardActs'
import { useTreeActs } from '../../../shared/useTreeActs'
import TailsDrawing from '../drawings/TailsDrawing.vue'
import { TAILS } from './items'
import TailsPlace from './TailsPlace.vue'

const store = useJob()
const { freeId } = useGuardActs()
const { act } = useTreeActs()
const OUT = { kind: 'take_out', to: '' } as const
const tails = computed(() => store.job!.supply.tails)
const several = computed(() => tails.value.length > 1)
// Usual sizes: behind a bigger fuse more is usual; anything smaller needs the operator's word.
const fuseA = computed(() => store.job!.supply.cut_out_fuse_a ?? 0)
const small = (one: TailsStretch) => fuseA.value > 100 || (one.csa_mm2 !== null && one.csa_mm2 < 25)

function add(): void {
  const last = tails.value.at(-1)
  const stretch: TailsStretch = {
    id: freeId('tails'),
    after: last?.id ?? '',
    ends_at: 'board',
    board: '',
    csa_mm2: null,
    length_m: null,
    sleeved: 'not_seen',
    runs: 'not_seen',
    accepted_in_writing: 'not_seen',
    accepted_to_a: null,
    fitted_with_this_job: false,
  }
  store.change('supply.tails', [...tails.value, stretch], 'tails added')
}
</script>

<template>
  <component
    :is="several ? FieldGroup : 'div'"
    v-for="(one, index) in tails"
    :key="one.id"
    :title="`Stretch ${index + 1}`"
    class="stretch"
  >
    <TailsPlace v-if="several" :index="index" class="wide" />
    <TapField
      :path="`supply.tails.${index}.csa_mm2`"
      label="Size of the tails"
      :items="TAILS"
      hint="Read it off the sheath; don’t guess."
      class="wide"
    />
    <JobField :path="`supply.tails.${index}.length_m`" label="Tails, length" kind="number" unit="m" class="short" />
    <TapField
      v-if="one.runs !== 'not_seen' || store.evaluation?.asked.includes(`supply.tails.${index}.runs`)"
      :path="`supply.tails.${index}.runs`"
      label="How do they run?"
      choice="TailsRun"
      hint="What cools them decides what they carry."
      class="wide"
    />
    <TapField :path="`supply.tails.${index}.sleeved`" label="Marked brown and blue?" choice="Seen" class="wide">
      <template #picture="{ value }"><TailsDrawing :sleeved="value === 'yes'" /></template>
    </TapField>
    <TapField
      v-if="small(one)"
      :path="`supply.tails.${index}.accepted_in_writing`"
      label="Accepted by the operator in writing?"
      choice="Seen"
      hint="Only where the size is smaller than usual behind this fuse."
      class="wide"
    />
    <JobField
      v-if="small(one) && one.accepted_in_writing === 'yes'"
      :path="`supply.tails.${index}.accepted_to_a`"
      label="Up to, as the letter says"
      kind="number"
      unit="A"
      class="short"
    />
    <button v-if="several" type="button" class="link" @click="act(one.id, OUT, 'a stretch of the tails taken out')">
      Take this stretch out
    </button>
  </component>
  <button type="button" class="link add" @click="add">
    {{ tails.length ? 'The tails go on: add a stretch' : 'Add the tails' }}
  </button>
  <TapField path="supply.room_to_split_tails" label="Room for connector blocks to split them?" choice="Seen" />
</template>

<style scoped>
.stretch {
  display: grid;
  gap: 16px;
}
.add {
  min-height: 44px;
}
</style>
