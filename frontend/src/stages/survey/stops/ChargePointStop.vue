<script setup lang="ts">
// The charge point: where it comes from, its kind from the catalogue, and the facts that matter electrically.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import OpenPenFields from '../../../shared/fields/OpenPenFields.vue'
import { rcd, rcdWords } from '../../../shared/fields/rcds'
import TapField from '../../../shared/fields/TapField.vue'
import { CURRENTS, IP, PHASES, TETHERED, YES_NO } from './items'
import SeenRcdField from './SeenRcdField.vue'
import RecordPicker from './RecordPicker.vue'

const store = useJob()
const point = computed(() => store.job!.charge_points[store.pointIndex])
const used = computed(() => point.value?.provenance !== 'supplied_new')
const RCDS = [rcd('A'), rcd('F'), rcd('B'), rcd('AC')].map((value) => ({ value, words: rcdWords(value) }))
const TAIL_SIZES = [1.5, 2.5, 4, 6, 10].map((value) => ({ value, words: `${value} mm²` }))
const UPSTREAM = ['A', 'F', 'B'].map((value) => ({ value, words: `Type ${value}` }))
const TERMINALS = [4, 6, 10, 16].map((value) => ({ value, words: `${value} mm²` }))
const at = (field: string) => `charge_points.${store.pointIndex}.${field}`
</script>

<template>
  <template v-if="point">
    <JobField v-if="store.job!.charge_points.length > 1" :path="at('name')" label="Which one this is" />
    <TapField :path="at('provenance')" label="Where does it come from?" choice="Provenance" />
    <div v-if="used" class="used">
      <p>
        <b>Find out what is inside before it goes on the wall.</b> Older units hold neither an open-PEN device nor DC
        detection: look at the plate, the maker’s data and the year. Not known counts as not there.
      </p>
      <div class="pair"><JobField :path="at('built_year')" label="Year it was built" kind="number" /></div>
      <TapField :path="at('seen_working')" label="Was it seen working?" choice="Seen" />
    </div>
    <RecordPicker />
    <TapField :path="at('phases')" label="Phases of the unit" :items="PHASES" />
    <TapField :path="at('max_current_a')" label="Most it can take" :items="CURRENTS" />
    <TapField :path="at('open_pen_inside')" label="Open-PEN device inside" choice="Seen" />
    <div v-if="point.open_pen_inside === 'yes'" class="pair">
      <OpenPenFields :path="at('open_pen_device')" :live="at('open_pen_opens_live')" />
    </div>
    <TapField :path="at('rdc_dd_inside')" label="6 mA DC detection inside" choice="Seen" />
    <TapField :path="at('current_clamp')" label="Takes a current clamp" choice="Seen" />
    <TapField :path="at('smart')" label="Smart: off-peak default and random delay" choice="Seen" />
    <TapField :path="at('data_ways')" label="Reaches the network by" choice="DataWay" many />
    <TapField :path="at('takes_armour')" label="Entry takes an armoured cable’s gland" choice="Seen" />
    <TapField :path="at('flex_tail')" label="Comes with a flexible tail" :items="YES_NO" />
    <div v-if="point.flex_tail" class="pair">
      <JobField :path="at('flex_csa_mm2')" label="Its tail, size" kind="choice" :items="TAIL_SIZES" />
      <JobField :path="at('flex_length_m')" label="Its tail, length" kind="number" unit="m" />
      <JobField
        :path="at('flex_rating_a')"
        label="Its maker's rating"
        kind="number"
        unit="A"
        hint="Empty: the table counts"
      />
    </div>
    <TapField :path="at('locks_off')" label="What isolates it locks off, with a label" choice="Seen" />
    <TapField :path="at('feeds_back')" label="Can feed the car’s battery back" choice="Seen" />
    <TapField :path="at('hangs_outdoors')" label="Hangs outdoors" :items="YES_NO" />
    <TapField :path="at('tethered')" label="Lead" :items="TETHERED" />
    <TapField v-if="!point.tethered" :path="at('socket')" label="Its socket" choice="SocketKind" />
    <div v-if="store.job!.site.car_place === 'indoors_only'" class="pair">
      <JobField v-if="point.tethered" :path="at('lead_length_m')" label="Its lead, length" kind="number" unit="m" />
      <JobField :path="at('door_distance_m')" label="From it to the nearest door" kind="number" unit="m" />
    </div>
    <div class="pair">
      <SeenRcdField
        :path="at('rcd_inside')"
        :seen="at('rcd_inside_seen')"
        label="RCD inside"
        none="none"
        :items="RCDS"
      />
      <JobField
        v-if="point.rcd_inside"
        :path="at('rcd_inside.switches_neutral')"
        label="It opens the neutral"
        kind="choice"
        :items="YES_NO"
      />
      <SeenRcdField
        :path="at('upstream_rcd')"
        :seen="at('upstream_rcd_asked')"
        label="RCD its maker asks for"
        none="asks for none"
        :items="UPSTREAM"
      />
      <JobField :path="at('terminal_max_mm2')" label="Terminals take up to" kind="choice" :items="TERMINALS" />
      <JobField :path="at('ip_code')" label="IP code" kind="choice" :items="IP" />
      <JobField :path="at('device_min_a')" label="Maker's device, from" kind="number" unit="A" />
      <JobField :path="at('device_max_a')" label="Maker's device, to" kind="number" unit="A" />
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
