<script setup lang="ts">
// Every other way that works: one press tries them all, the few that no other beats stay.
import { useJob } from '../../../job/useJob'
import LookingNote from '../../../shared/LookingNote.vue'
import { useLooking } from '../../../shared/useLooking'
import { useChain } from '../useChain'
import { letterOf } from './letters'
import WayCard from './WayCard.vue'
import WaysPlot from './WaysPlot.vue'

const store = useJob()
const { point } = useChain()
const { soFar, found, failed, busy, stale, look, stop } = useLooking('/api/v1/search')
const go = () => look({ job: store.judged!, charge_point: point.value?.id ?? '' })
const count = (value: number) => value.toLocaleString('en-GB')
</script>

<template>
  <section class="run-page" aria-label="Other ways">
    <p>
      Every sensible layout, kind and size of cable, device and arrangement is tried against the checks of this job.
    </p>
    <p class="acts">
      <v-btn color="ink" :disabled="busy || !point" @click="go">{{
        busy ? 'Trying…' : found ? 'Try them again' : 'Try every way'
      }}</v-btn>
      <span v-if="stale" class="quiet">The job has changed since.</span>
    </p>
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
    <LookingNote :so-far="soFar" :busy="busy" :some="!!found?.few.length" @stop="stop" />
    <template v-if="found">
      <p v-if="!busy" class="told" role="status">
        {{ count(found.tried) }} ways tried, {{ count(found.held) }} hold, {{ count(found.tried - found.held) }} fall
        short.
      </p>
      <p v-if="found.left_out" role="note">
        Of the ways to lay the sub-mains in a row, {{ count(found.left_out) }} were not gone on with: those of least
        margin.
      </p>
      <p v-for="one in found.elsewhere" :key="one" class="failed">Falls short whichever way: {{ one }}</p>
      <WaysPlot :ways="found.few" />
      <ul v-if="found.few.length" class="few">
        <WayCard
          v-for="(way, index) in found.few"
          :key="`${way.layout}${way.cable}${way.device}`"
          :letter="found.few.length > 1 ? letterOf(index) : ''"
          :way="way"
          @take="store.apply(`${way.cable}, ${way.layout}`, way.changes)"
        />
      </ul>
      <div v-else-if="found.nearest" class="nearest">
        <p>
          <b>Nothing holds.</b> What comes nearest:
          {{ [found.nearest.cable, found.nearest.device, found.nearest.layout].filter(Boolean).join(', ') }}. In its
          way:
        </p>
        <ul>
          <li v-for="one in found.nearest.reasons" :key="one" class="failed">{{ one }}</li>
        </ul>
      </div>
      <p v-if="found.invented_prices" class="quiet small">
        Prices and working times are invented until you bring your own: see Materials.
      </p>
      <div v-if="!busy" class="wide-table sizes" role="group" aria-label="Sizes" tabindex="0">
        <table>
          <caption>
            Why not another size?
          </caption>
          <thead>
            <tr>
              <th scope="col">Last circuit</th>
              <th scope="col" class="num">Ways that hold</th>
              <th scope="col">What the others fall short of first, most often</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="size in found.sizes" :key="size.csa_mm2">
              <th scope="row" class="num">{{ size.csa_mm2 }} mm²</th>
              <td class="num">{{ count(size.held) }} of {{ count(size.tried) }}</td>
              <td>{{ size.why_not || '–' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div v-if="!busy" class="wide-table" role="group" aria-label="Reasons" tabindex="0">
        <table>
          <caption>
            Commonest reasons
          </caption>
          <thead>
            <tr>
              <th scope="col">Falls short first of</th>
              <th scope="col" class="num">Times</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="reason in found.reasons" :key="reason.rule">
              <td>{{ reason.text }}</td>
              <td class="num">{{ count(reason.times) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </section>
</template>

<style src="../page.css" />
<style scoped>
.told {
  font-size: 1.12rem;
  font-weight: 700;
}
.nearest ul {
  margin: 6px 0 12px;
  padding-left: 20px;
}
.few {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 12px;
}
th.num {
  text-align: left;
}
@media (max-width: 839px) {
  /* The reason keeps half the width: the count breaks before "of". */
  .sizes thead .num,
  .sizes td.num {
    white-space: normal;
  }
  .sizes th,
  .sizes .num {
    padding-left: 0;
  }
}
</style>
