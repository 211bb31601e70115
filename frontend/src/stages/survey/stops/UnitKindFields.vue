<script setup lang="ts">
// What a charge point's maker says of it: the facts that every unit of its make and model shares.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import OpenPenFields from '../../../shared/fields/OpenPenFields.vue'
import { rcd, rcdWords } from '../../../shared/fields/rcds'
import TapField from '../../../shared/fields/TapField.vue'
import { CURRENTS, IP, PHASES, TETHERED, YES_NO } from './items'
import RecordPicker from './RecordPicker.vue'
import SeenRcdField from './SeenRcdField.vue'

const store = useJob()
const point = computed(() => store.job!.charge_points[store.pointIndex]!)
const RCDS = [rcd('A'), rcd('F'), rcd('B'), rcd('AC')].map((value) => ({ value, words: rcdWords(value) }))
const TAIL_SIZES = [1.5, 2.5, 4, 6, 10].map((value) => ({ value, words: `${value} mm²` }))
const UPSTREAM = ['A', 'F', 'B'].map((value) => ({ value, words: `Type ${value}` }))
const TERMINALS = [4, 6, 10, 16].map((value) => ({ value, words: `${value} mm²` }))
const at = (field: string) => `charge_points.${store.pointIndex}.${field}`
</script>

<template>
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
  <TapField :path="at('feeds_back')" label="Can feed the car’s battery back" choice="Seen" />
  <TapField :path="at('tethered')" label="Lead" :items="TETHERED" />
  <TapField v-if="point.tethered === false" :path="at('socket')" label="Its socket" choice="SocketKind" />
  <div class="pair">
    <template v-if="point.tethered">
      <JobField :path="at('lead_length_m')" label="Lead length" kind="number" unit="m" />
      <JobField :path="at('lead_csa_mm2')" label="Lead size" kind="choice" :items="TAIL_SIZES" />
    </template>
    <SeenRcdField :path="at('rcd_inside')" :seen="at('rcd_inside_seen')" label="RCD inside" none="none" :items="RCDS" />
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
  </div>
</template>
