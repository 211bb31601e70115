<script setup lang="ts">
// The broken-PEN bench: break the PEN of a street and see what every car gets, and which device would see it.
import { useCatalogue } from '../../../shared/useCatalogue'
import TapGroup from '../../../shared/fields/TapGroup.vue'
import BenchControls from './BenchControls.vue'
import BenchStreet from './BenchStreet.vue'
import { useBench } from './useBench'

const { words } = useCatalogue()
const state = useBench()
const { presets, key, bench, chosen, found, failed, missing, lesson, take } = state
</script>

<template>
  <section class="protect" aria-label="Broken-PEN bench">
    <TapGroup
      v-if="presets.length"
      label="Streets that teach"
      :answers="presets.map((one) => ({ value: one.key, words: one.title }))"
      :chosen="(one) => one === key"
      @tap="take"
    />
    <p v-if="missing || failed" class="failed" role="alert">{{ missing || failed }}</p>
    <template v-if="bench && found">
      <p class="told" role="status">{{ found.told }}</p>
      <p v-if="lesson" class="quiet">{{ lesson }}</p>
      <BenchStreet :bench="bench" :result="found" :chosen="chosen" @choose="chosen = $event" />
      <table>
        <caption>
          What a device at this house does
        </caption>
        <tbody>
          <tr v-for="device in found.devices" :key="device.sensing">
            <th scope="row">
              {{ words('OpenPenSensing', device.sensing) }}<span class="quiet small line">{{ device.told }}</span>
            </th>
            <td class="num">
              <b>{{ device.sees ? `sees it, opens by ${device.opens_s} s` : 'does not see it' }}</b>
            </td>
          </tr>
          <tr>
            <th scope="row">Person at the car, before it opens</th>
            <td class="num">
              <b class="figure">{{ found.before.volts_v.toFixed(0) }} V, {{ found.before.body_ma.toFixed(0) }} mA</b
              ><span class="line small">{{ found.before.felt }}</span>
            </td>
          </tr>
          <tr>
            <th scope="row">After, with a device that sees it</th>
            <td class="num">
              <b class="figure">{{ found.after.volts_v.toFixed(0) }} V, {{ found.after.body_ma.toFixed(0) }} mA</b
              ><span class="line small">{{ found.after.felt }}</span>
            </td>
          </tr>
        </tbody>
      </table>
      <BenchControls :state="state" />
      <details>
        <summary>Every house as a table</summary>
        <table>
          <thead>
            <tr>
              <th scope="col">House</th>
              <th scope="col" class="num">Car V</th>
              <th scope="col" class="num">L–N V</th>
              <th scope="col" class="num">Electrode A</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(house, place) in found.houses" :key="place">
              <th scope="row">{{ place + 1 }}{{ place === bench.street.here ? ', this house' : '' }}</th>
              <td class="num figure">{{ house.car_v.toFixed(0) }}</td>
              <td class="num figure">
                {{ house.line_neutral_v.map((one) => (one === null ? '–' : one.toFixed(0))).join(' / ') }}
              </td>
              <td class="num figure">{{ house.electrode_a.toFixed(1) }}</td>
            </tr>
          </tbody>
        </table>
      </details>
      <p class="quiet small">
        Loads and wires are plain resistances, the person stands on true earth. It teaches; it measures no street.
      </p>
    </template>
  </section>
</template>

<style src="./page.css" />
<style scoped>
.line {
  display: block;
}
summary {
  cursor: pointer;
  min-height: 44px;
  display: flex;
  align-items: center;
  font-weight: 700;
}
</style>
