<script setup lang="ts">
// How exactly an instrument reads, by its own sheet: an ordinary one's figures are offered, and said by whoever looked.
import { computed } from 'vue'

import { useJob } from '../../job/useJob'
import JobField from '../../shared/fields/JobField.vue'
import { useCatalogue } from '../../shared/useCatalogue'

const props = defineProps<{ index: number }>()

const store = useJob()
const { catalogue } = useCatalogue()
const path = computed(() => `testing.instruments.${props.index}.accuracies`)
const instrument = computed(() => store.job!.testing.instruments[props.index]!)
const usual = computed(() =>
  (catalogue.value?.accuracies ?? []).filter((one) => instrument.value.functions.includes(one.function)),
)
const said = computed(() => instrument.value.accuracies ?? [])
const unsaid = computed(() => usual.value.filter((one) => !said.value.some((told) => told.measures === one.measures)))
const of = (measures: string) => usual.value.find((one) => one.measures === measures)

function asOrdinary(): void {
  const ordinary = unsaid.value.map(({ measures, share_percent, digits }) => ({ measures, share_percent, digits }))
  store.change(path.value, [...said.value, ...ordinary], 'usual accuracies')
}
</script>

<template>
  <div v-if="usual.length" class="exact">
    <p class="label">Accuracy, from its data sheet</p>
    <template v-for="(one, at) in said" :key="one.measures">
      <div v-if="of(one.measures)" class="row">
        <span>{{ of(one.measures)!.words }}</span>
        <JobField :path="`${path}.${at}.share_percent`" label="± of the reading" kind="number" unit="%" />
        <JobField
          :path="`${path}.${at}.digits`"
          :label="`digits of ${of(one.measures)!.digit} ${of(one.measures)!.unit}`"
          kind="number"
        />
      </div>
    </template>
    <template v-if="unsaid.length">
      <p class="quiet">
        Not said yet:
        {{ unsaid.map((one) => `${one.words} ±(${one.share_percent} % + ${one.digits} digits)`).join('; ') }}.
      </p>
      <v-btn variant="outlined" @click="asOrdinary">Enter these, as on its data sheet</v-btn>
    </template>
  </div>
</template>

<style scoped>
.exact {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.label {
  font-weight: 700;
}
.row {
  display: grid;
  grid-template-columns: minmax(120px, 1.2fr) 1fr 1fr;
  gap: 8px;
  align-items: center;
  width: 100%;
}
@media (max-width: 600px) {
  .row {
    grid-template-columns: 1fr 1fr;
  }
  .row span {
    grid-column: 1 / -1;
  }
}
</style>
