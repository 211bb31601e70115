<script setup lang="ts">
// Which metal services and structures come in, or none; what comes in is bonded.
import { computed } from 'vue'

import type { Job } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import TapGroup from '../../../shared/fields/TapGroup.vue'
import { useCatalogue } from '../../../shared/useCatalogue'

type Metal = NonNullable<Job['supply']['incoming_metal']>

const NONE = 'none'
const store = useJob()
const { options } = useCatalogue()
const answers = computed(() => [...options('BondedService'), { value: NONE, words: 'none' }])
// A file of before says “none” in a field of its own.
const said = computed(() => {
  const { incoming_metal: metal, no_extraneous_parts: none } = store.job!.supply
  return metal ?? (none ? [] : null)
})
const chosen = (one: unknown) => (one === NONE ? said.value?.length === 0 : (said.value ?? []).includes(one as never))

function tap(one: unknown): void {
  const now = said.value ?? []
  const kept = options('BondedService')
    .map((each) => each.value as Metal[number])
    .filter((each) => now.includes(each) !== (each === one))
  store.changeAll([
    { field: 'supply.incoming_metal', value: one === NONE ? [] : kept },
    { field: 'supply.no_extraneous_parts', value: false },
  ])
}
</script>

<template>
  <TapGroup
    label="Metal that comes in"
    :answers="answers"
    :chosen="chosen"
    many
    hint="Pipes and steel that bring true earth into the house."
    :error="store.errorAt('supply.incoming_metal')"
    @tap="tap"
  />
</template>
