<script setup lang="ts">
// How far this design holds: each fact by itself on a scale of its own, from where it stands to where it ends.
import { computed, ref, watch } from 'vue'

import { answer, api, asProblem } from '../../api/client'
import type { Reach } from '../../api/types'
import { useJob } from '../../job/useJob'
import { fixed } from '../../shared/format'
import { upsetWords, useUnknowns } from '../../shared/useUnknowns'

const store = useJob()
const reaches = ref<Reach[]>()
const failed = ref('')
const busy = ref(false)
const stopped = ref(false)
const point = computed(() => store.job?.charge_points[store.pointIndex]?.id ?? '')
// What was worked out for other facts is no answer any more.
watch(
  () => store.evaluation,
  () => (reaches.value = undefined),
)

async function ask(): Promise<void> {
  failed.value = ''
  busy.value = true
  try {
    const job = store.judged!
    const asked = api.POST('/api/v1/reach', { body: { job, charge_point: point.value } })
    const found = await answer<{ reaches: Reach[]; stopped: boolean }>(asked)
    stopped.value = found.stopped
    if (store.judged === job) reaches.value = found.reaches
  } catch (error) {
    failed.value = asProblem(error).detail
  }
  busy.value = false
}
const { facts: unknowns, failed: notWeighed } = useUnknowns()
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
    <button v-if="!reaches" type="button" class="link" :disabled="busy" @click="ask">
      {{ busy ? 'Working it out…' : 'Work out how far this design holds' }}
    </button>
    <p v-else-if="!reaches.length && stopped" class="quiet">The job is too big to be worked out in time.</p>
    <p v-else-if="!reaches.length" class="quiet">It falls short as it stands: mend that first.</p>
    <table v-else>
      <caption>
        Each by itself, all else as it stands. Past its end the check named is no longer what it is now.
        <template v-if="stopped">Not every fact was tried: the time for it ran out.</template>
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
    <template v-if="telling.length">
      <h2 class="unknown">Not known yet, by what it could upset</h2>
      <ul>
        <li v-for="one in telling" :key="one.field">
          {{ one.text }} <span class="quiet">{{ upsetWords(one) }}</span>
        </li>
        <li v-if="silent" class="quiet">{{ silent }} more, which upset nothing whatever the answer.</li>
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
