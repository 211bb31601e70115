<script setup lang="ts">
// What the makers of a board and of its surge protection say, and what hangs behind an RCD that the car shares.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'

const props = defineProps<{ index: number }>()

const store = useJob()
const board = computed(() => store.job!.boards[props.index]!)
const at = (field: string) => `boards.${props.index}.${field}`
// Asked where there is a reason; what was answered stays in sight.
const asks = (field: string, said: boolean) => said || !!store.evaluation?.asked.includes(at(field))
</script>

<template>
  <TapField
    :path="at('devices_allowed')"
    label="Its maker names the devices that go in"
    choice="Seen"
    hint="Fitting is not enough: another maker’s device may not be."
  />
  <TapField
    v-if="board.surge_protection === 'yes'"
    :path="at('surge_as_made')"
    label="Surge protection connected as its maker says, with a device before it"
    choice="Seen"
  />
  <TapField
    v-if="board.make_up === 'rewirable' && !board.fitted_with_this_job"
    :path="at('flash_guards')"
    label="Asked whether its flash guards hold asbestos"
    choice="Seen"
    hint="Before anybody drills or breaks them."
  />
  <TapField
    v-if="asks('smooth_dc', board.smooth_dc !== 'not_seen')"
    :path="at('smooth_dc')"
    label="Anything else of smooth DC behind the shared RCD"
    choice="Seen"
    hint="An inverter, a battery, a big drive."
  />
  <JobField
    v-if="asks('leakage_ma', board.leakage_ma !== null)"
    :path="at('leakage_ma')"
    label="Leaks behind the shared RCD"
    kind="number"
    unit="mA"
    class="short"
  />
  <JobField
    v-if="asks('busbar_a', board.busbar_a !== null)"
    :path="at('busbar_a')"
    label="Its busbar carries"
    kind="number"
    unit="A"
    class="short"
  />
  <JobField
    v-if="asks('diversity_factor', board.diversity_factor !== null)"
    :path="at('diversity_factor')"
    label="Maker's diversity factor"
    kind="number"
    class="short"
  />
</template>
