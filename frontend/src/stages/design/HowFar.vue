<script setup lang="ts">
// How far this design holds: each fact by itself on a scale of its own, from where it stands to where it ends.
import { computed } from 'vue'

import type { Reach } from '../../api/types'
import { useJob } from '../../job/useJob'
import { fixed } from '../../shared/format'
import LookingNote from '../../shared/LookingNote.vue'
import { useLooking } from '../../shared/useLooking'
import { upsetWords, useUnknowns } from '../../shared/useUnknowns'

const store = useJob()
const { soFar, found, failed, busy, finished, stale, look, stop } = useLooking('/api/v1/reach')
// What was worked out for other facts is no answer any more.
const reaches = computed(() => (stale.value ? undefined : found.value))
const point = computed(() => store.job?.charge_points[store.pointIndex]?.id ?? '')
const ask = () => look({ job: store.judged!, charge_point: point.value })
const { facts: unknowns, soFar: weighed, busy: weighing, failed: notWeighed, stop: stopWeighing } = useUnknowns()
const telling = computed(() => unknowns.value.filter((one) => upsetWords(one)))
const silent = computed(() => unknowns.value.length - telling.value.length)
const share = (one: Reach) => Math.abs(one.holds_to - one.now) / Math.max(1e-9, Math.abs(one.most - one.now))
const figure = (one: Reach, value: number) => `${fixed(value, one.decimals)} ${one.unit}`.trim()
const ends = (one: Reach) => (one.upset ? one.upset : 'holds all the way')
</script>

<template>
  <section class="how-far" aria-label="How far it holds">
    <h2>How far it holds</h2>
    <p v-if="failed" role="alert">{{ failed }}</p>
    <LookingNote v-if="!stale" :so-far="soFar" :busy="busy" :some="!!reaches?.length" @stop="stop" />
    <button v-if="!reaches && !(busy && !stale)" type="button" class="link" @click="ask">
      Work out how far this design holds
    </button>
    <p v-else-if="finished && !reaches?.length" class="quiet">It falls short as it stands: mend that first.</p>
    <table v-else-if="reaches?.length">
      <caption>
        Each by itself, all else as it stands. Past its end the check named is no longer what it is now.
      </caption>
      <tbody>
        <tr v-for="one in reaches" :key="one.key">
          <th scope="row">{{ one.title }}</th>
          <td class="figure to">{{ figure(one, one.holds_to) }}</td>
          <td class="scale" aria-hidden="true">
            <svg viewBox="0 0 200 16" preserveAspectRatio="none">
              <line x1="2" x2="198" y1="8" y2="8" class="track" />
              <line x1="2" :x2="2 + share(one) * 196" y1="8" y2="8" class="holds" />
              <line :x1="2 + share(one) * 196" :x2="2 + share(one) * 196" y1="1" y2="15" class="end" />
            </svg>
            <span class="quiet figure small"
              ><span>{{ figure(one, one.now) }}</span
              ><span>{{ figure(one, one.most) }}</span></span
            >
          </td>
          <td class="quiet">{{ ends(one) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="notWeighed" role="alert">{{ notWeighed }}</p>
    <!-- What is quick needs no count; a list that still grows says so. -->
    <LookingNote v-if="weighed" :so-far="weighed" :busy="weighing" :some="telling.length > 0" @stop="stopWeighing" />
    <template v-if="telling.length">
      <h2 class="unknown">Not known yet, by what it could upset</h2>
      <ul>
        <li v-for="one in telling" :key="one.field">
          {{ one.text }} <span class="quiet">{{ upsetWords(one) }}</span>
        </li>
        <li v-if="silent && !weighing" class="quiet">{{ silent }} more, which upset nothing whatever the answer.</li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.how-far {
  margin-top: 26px;
}
h2 {
  font-size: 0.95rem;
  color: var(--quiet);
  margin-bottom: 4px;
}
.unknown {
  margin-top: 20px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
table {
  width: 100%;
  border-collapse: collapse;
}
caption {
  text-align: left;
  font-size: 0.88rem;
  color: var(--quiet);
  padding-bottom: 6px;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 8px 12px 6px 0;
  border-top: 1px solid var(--line);
  vertical-align: top;
}
.to {
  font-weight: 700;
  white-space: nowrap;
  text-align: right;
}
.scale {
  width: 34%;
  min-width: 110px;
}
.scale svg {
  display: block;
  width: 100%;
  height: 16px;
}
.scale > span {
  display: flex;
  justify-content: space-between;
}
.track {
  stroke: var(--track);
  stroke-width: 5;
}
.holds {
  stroke: var(--meets);
  stroke-width: 5;
}
.end {
  stroke: var(--ink);
  stroke-width: 3;
  vector-effect: non-scaling-stroke;
}
@media (max-width: 839px) {
  tr {
    display: grid;
    grid-template-columns: 1fr auto;
    border-top: 1px solid var(--line);
    padding: 6px 0;
  }
  th,
  td {
    border: 0;
    padding: 2px 0;
  }
  .scale,
  .scale + td {
    grid-column: 1 / -1;
    width: auto;
  }
}
</style>
