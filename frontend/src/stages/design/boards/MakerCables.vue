<script setup lang="ts">
// A cable by its maker's own ratings, kept with the job: for cables that no table rates.
import { computed, ref } from 'vue'

import type { MakerCable } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { typedNumber } from '../../../shared/format'
import { useCatalogue } from '../../../shared/useCatalogue'
import { useTreeActs } from '../../../shared/useTreeActs'

const store = useJob()
const { options } = useCatalogue()
const open = ref(false)
const EMPTY = { name: '', source: '', insulation: 'pvc_70', armoured: false, overall: '', rows: '' }
const draft = ref({ ...EMPTY, fine: null as boolean | null })
const failed = ref('')
const STRANDS = [
  { value: false, words: 'solid or stranded' },
  { value: true, words: 'fine-strand, flexible' },
  { value: null, words: 'not known yet' },
]
const own = computed(() => store.job!.maker_cables)

/** One rating a line: method, size, amps; then 2 or 3 loaded conductors, and what it loses, mV/A/m. */
function ratings(): MakerCable['ratings'] {
  return draft.value.rows
    .split('\n')
    .filter((line) => line.trim())
    .map((line) => {
      const [method, size, amps, loaded, lost] = line.trim().replace(/,/g, '.').split(/\s+/)
      return {
        method: method ?? '',
        csa_mm2: Number(size),
        rating_a: Number(amps),
        loaded: loaded === '3' ? 3 : 2,
        drop_mv_per_a_m: lost === undefined ? null : Number(lost),
      } as MakerCable['ratings'][number]
    })
}
function keep(): void {
  const rows = ratings()
  const bad = rows.findIndex(
    (one) =>
      !options('ReferenceMethod').some((known) => known.value === one.method) ||
      !(one.csa_mm2 > 0) ||
      !(one.rating_a > 0) ||
      (one.drop_mv_per_a_m !== null && !((one.drop_mv_per_a_m ?? 0) > 0)),
  )
  if (bad >= 0) {
    failed.value = `Line ${bad + 1} can't be read: write a method, a size and amps, such as “C 6 46”.`
    return
  }
  failed.value = ''
  const id = `own-${
    draft.value.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 30) || 'cable'
  }-${own.value.length + 1}`
  const overall = typedNumber(draft.value.overall)
  const record = {
    id,
    name: draft.value.name.trim(),
    source: draft.value.source.trim(),
    insulation: draft.value.insulation,
    armoured: draft.value.armoured,
    fine_strands: draft.value.fine,
    overall_mm: overall,
    ratings: rows,
  }
  store.apply(`the maker's record of ${record.name}`, [{ field: 'maker_cables', value: [...own.value, record] }])
  open.value = false
}
const used = (id: string) =>
  store.job!.circuits.some(
    (one) => one.cable.record === id || one.route.some((section) => section.cable?.record === id),
  )
const { act } = useTreeActs()
const remove = (id: string) => act(id, { kind: 'take_out', to: '' }, 'a maker’s record taken out')
</script>

<template>
  <section aria-label="Makers’ records">
    <h2>Makers’ records</h2>
    <ul>
      <li v-for="one in own" :key="one.id">
        <b>{{ one.name }}</b> <span class="quiet">{{ one.ratings.length }} ratings, {{ one.source }}</span>
        <button v-if="!used(one.id)" type="button" class="link" @click="remove(one.id)">Take out</button>
        <span v-else class="quiet">in use</span>
      </li>
    </ul>
    <button type="button" class="link" :aria-expanded="open" @click="open = !open">
      {{ open ? 'Close' : 'Add a cable by its maker’s ratings' }}
    </button>
    <form v-if="open" @submit.prevent="keep">
      <v-text-field v-model="draft.name" label="Kind of cable" maxlength="80" />
      <v-text-field v-model="draft.source" label="Where the ratings are from" maxlength="200" />
      <v-select
        v-model="draft.insulation"
        label="Insulation"
        :items="options('Insulation')"
        item-title="words"
        item-value="value"
      />
      <v-text-field v-model="draft.overall" label="Overall diameter" suffix="mm" inputmode="decimal" />
      <label class="check"><input v-model="draft.armoured" type="checkbox" /> with earthed steel wire armour</label>
      <v-select
        v-model="draft.fine"
        label="Its cores"
        :items="STRANDS"
        item-title="words"
        item-value="value"
        hint="Fine strands resist more, and want ferrules."
      />
      <v-textarea
        v-model="draft.rows"
        label="Ratings, one a line: method, mm², amps; above 25 mm² also 2 or 3 loaded, mV/A/m"
        placeholder="C 6 46&#10;C 35 158 3 1.15"
        rows="3"
        :error-messages="failed"
        class="rows"
      />
      <v-btn
        type="submit"
        color="ink"
        :disabled="draft.name.trim().length < 2 || draft.source.trim().length < 3 || !draft.rows.trim()"
        >Keep the record</v-btn
      >
    </form>
  </section>
</template>

<style scoped>
h2 {
  font-size: 1rem;
  color: inherit;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}
form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 220px), 1fr));
  gap: 10px;
  padding-top: 8px;
}
.rows {
  grid-column: 1 / -1;
}
.check {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
.check input {
  width: 20px;
  height: 20px;
  accent-color: var(--copper);
}
</style>
