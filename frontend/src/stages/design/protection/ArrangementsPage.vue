<script setup lang="ts">
// Every way to protect people, judged: allowed, allowed with a condition, refused with clause and fear.
import { computed, ref } from 'vue'

import { answer, api } from '../../../api/client'
import type { ArrangementOption, ArrangementOptions } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import TapGroup from '../../../shared/fields/TapGroup.vue'
import { useAsked } from '../../../shared/useAsked'
import ArrangementRow from './ArrangementRow.vue'

type Shown = ArrangementOption['allowance'] | 'all'

const store = useJob()
const pointId = computed(() => store.job?.charge_points[store.pointIndex]?.id)
const { found, failed } = useAsked(
  () => (store.judged && pointId.value ? { job: store.judged, charge_point: pointId.value } : undefined),
  (body) => answer<ArrangementOptions>(api.POST('/api/v1/protection/arrangements', { body })),
)
const shown = ref<Shown>('all')
const earth = ref('')
const WORDS = { allowed: 'allowed', condition: 'with a condition', refused: 'refused' }
const earths = computed(() => [...new Set((found.value?.options ?? []).map((way) => `${way.earth} · ${way.open_pen}`))])
const answers = computed(() => [
  { value: 'all' as Shown, words: `all ${found.value?.options.length ?? 0}` },
  ...(['allowed', 'condition', 'refused'] as const).map((value) => ({
    value: value as Shown,
    words: `${found.value?.counts[value] ?? 0} ${WORDS[value]}`,
  })),
])
const ways = computed(() =>
  (found.value?.options ?? []).filter(
    (way) =>
      (shown.value === 'all' || way.allowance === shown.value) &&
      (!earth.value || `${way.earth} · ${way.open_pen}` === earth.value),
  ),
)
const MOST = 12
const more = ref(false)
const listed = computed(() => (more.value ? ways.value : ways.value.slice(0, MOST)))
const commonest = computed(() => {
  const counts = new Map<string, number>()
  for (const way of found.value?.options ?? [])
    if (way.allowance === 'refused')
      for (const reason of way.reasons) counts.set(reason.text, (counts.get(reason.text) ?? 0) + 1)
  return [...counts].sort((a, b) => b[1] - a[1])[0]
})
</script>

<template>
  <section class="protect" aria-label="Every arrangement">
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
    <p v-if="!found" class="quiet">Judging every way…</p>
    <template v-else>
      <TapGroup label="Show" :answers="answers" :chosen="(one) => one === shown" @tap="shown = $event" />
      <v-select
        v-model="earth"
        label="Earth and open-PEN measure"
        :items="[{ value: '', words: 'any' }, ...earths.map((one) => ({ value: one, words: one }))]"
        item-title="words"
        item-value="value"
      />
      <p v-if="commonest" class="quiet small">
        Commonest reason to refuse, {{ commonest[1] }} times: {{ commonest[0] }}
      </p>
      <ul>
        <ArrangementRow
          v-for="way in listed"
          :key="`${way.earth}${way.open_pen}${way.rcd}${way.rdc_dd}${way.surge}`"
          :way="way"
          @take="store.changeAll(way.changes, 'another arrangement')"
        />
      </ul>
      <p v-if="!ways.length" class="quiet">None.</p>
      <button v-if="ways.length > MOST" type="button" class="link" @click="more = !more">
        {{ more ? 'Show fewer' : `Show all ${ways.length}` }}
      </button>
    </template>
  </section>
</template>

<style src="./page.css" />
<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
</style>
