<script setup lang="ts">
// The charge point: where it comes from, its kind from the catalogue or another unit, and what is true of it alone.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TapField from '../../../shared/fields/TapField.vue'
import { YES_NO } from './items'
import UnitKindFields from './UnitKindFields.vue'

const store = useJob()
const points = computed(() => store.job!.charge_points)
const point = computed(() => points.value[store.pointIndex])
const used = computed(() => point.value?.provenance !== 'supplied_new')
// A unit that others are like has facts of its own.
const likes = computed(() => {
  const own = points.value.filter((one) => one !== point.value && !one.like)
  const leads = points.value.some((one) => one.like === point.value?.id)
  return leads ? [] : own.map((one) => ({ value: one.id, words: one.name }))
})
const liked = computed(() => points.value.find((one) => one.id === point.value?.like))
const at = (field: string) => `charge_points.${store.pointIndex}.${field}`
</script>

<template>
  <template v-if="point">
    <JobField v-if="points.length > 1" :path="at('name')" label="Which one this is" />
    <TapField :path="at('fitted')" label="When does it go onto its cable?" choice="Fitted" />
    <div v-if="point.fitted === 'later'" class="used">
      <p>
        <b>Its cable is tested by itself and handed over closed.</b> The loop in the box at its end stands until the
        unit comes; what is tested at the unit and through its connector waits for it.
      </p>
      <TapField :path="at('end_closed')" label="End closed in a box that wants a tool" choice="Seen" />
      <TapField :path="at('left_locked')" label="Its device left off and locked" choice="Seen" />
      <TapField :path="at('left_labelled')" label="Box and device labelled" choice="Seen" />
    </div>
    <TapField :path="at('provenance')" label="Where does it come from?" choice="Provenance" />
    <div v-if="used" class="used">
      <p>
        <b>Find out what is inside before it goes on the wall.</b> Older units hold neither an open-PEN device nor DC
        detection: look at the plate, the maker’s data and the year. Not known counts as not there.
      </p>
      <div class="pair"><JobField :path="at('built_year')" label="Year it was built" kind="number" /></div>
      <TapField :path="at('seen_working')" label="Was it seen working?" choice="Seen" />
    </div>
    <TapField
      v-if="likes.length"
      :path="at('like')"
      label="Same make and model as"
      :items="[{ value: '', words: 'none here' }, ...likes]"
    />
    <p v-if="liked" class="quiet">What its maker says is entered at {{ liked.name }}.</p>
    <UnitKindFields v-else />
    <TapField :path="at('locks_off')" label="What isolates it locks off, with a label" choice="Seen" />
    <TapField :path="at('hangs_outdoors')" label="Hangs outdoors" :items="YES_NO" />
    <div class="pair">
      <JobField
        v-if="store.job!.site.car_place === 'indoors_only'"
        :path="at('door_distance_m')"
        label="From it to the nearest door"
        kind="number"
        unit="m"
      />
      <JobField :path="at('set_current_a')" label="Set to, if turned down" kind="number" unit="A" />
      <JobField
        v-if="point.set_current_a"
        :path="at('set_current_locked')"
        label="Turned up only by tool or code"
        kind="choice"
        choice="Seen"
      />
      <JobField :path="at('serial_number')" label="Serial number" />
    </div>
  </template>
  <p v-else class="quiet">
    This job has no charge point yet. Start from a blank sheet, or bring in a job file that has one.
  </p>
</template>

<style scoped>
.used {
  border-left: 4px solid var(--needs);
  background: var(--sheet);
  padding: 10px 14px;
  display: grid;
  gap: 12px;
}
</style>
