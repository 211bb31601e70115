<script setup lang="ts">
// The design read and edited as one sentence, the route as walked, and the checks; each further part on its own page.
import { computed, defineAsyncComponent, ref, type Component } from 'vue'

import type { Finding, Settled } from '../../api/types'
import ChecksLedger from '../../checks/ChecksLedger.vue'
import { useJob } from '../../job/useJob'
import StageColumns from '../../shared/StageColumns.vue'
import ArrangementFields from './ArrangementFields.vue'
import HowFar from './HowFar.vue'
import { PARTS, PROTECTING } from './parts'
import RouteEditor from './route/RouteEditor.vue'
import SpecificationSentence from './SpecificationSentence.vue'
import { useChain } from './useChain'

const props = defineProps<{ part?: string }>()

// Each further page is fetched when it is opened.
const PAGES: Record<string, Component> = {
  boards: defineAsyncComponent(() => import('./boards/BoardsPage.vue')),
  others: defineAsyncComponent(() => import('./search/SearchPage.vue')),
  materials: defineAsyncComponent(() => import('./materials/MaterialsPage.vue')),
  arrangements: defineAsyncComponent(() => import('./protection/ArrangementsPage.vue')),
  bench: defineAsyncComponent(() => import('./protection/BenchPage.vue')),
  electrode: defineAsyncComponent(() => import('./protection/ElectrodePage.vue')),
  chain: defineAsyncComponent(() => import('./protection/ChainPage.vue')),
}
const protecting = computed(() => PROTECTING.includes(props.part ?? ''))
const filter = (one: Finding | Settled) =>
  protecting.value ? one.topics.includes('people') : one.stage === 'design' || one.topics.includes('design')
const store = useJob()
const { links, endOf } = useChain()
const finalIndex = computed(() => links.value.at(-1)?.circuitIndex ?? -1)
const routes = ref<InstanceType<typeof RouteEditor>[]>([])
</script>

<template>
  <StageColumns>
    <nav class="parts" aria-label="Parts of the design">
      <router-link
        v-for="one in PARTS"
        :key="one.part"
        :to="{ name: 'design', params: { id: store.id, part: one.part } }"
        :class="{ here: one.part === (props.part ?? '') }"
        :aria-current="one.part === (props.part ?? '') ? 'page' : undefined"
        >{{ one.words }}</router-link
      >
    </nav>
    <component :is="PAGES[part]" v-if="part && PAGES[part]" />
    <template v-else>
      <template v-if="store.sentence && links.length">
        <h2>How this circuit is put together</h2>
        <SpecificationSentence :sentence="store.sentence" @route="routes.at(-1)?.focus()" />
        <RouteEditor
          v-for="(link, index) in links"
          :key="link.circuit.id"
          ref="routes"
          :circuit-index="link.circuitIndex"
          :title="
            links.length > 1
              ? `The route of ${link.circuit.name}, from ${link.board.name} to ${endOf(index)}`
              : 'The route, as walked from the board'
          "
        />
        <HowFar />
        <ArrangementFields :circuit-index="finalIndex" />
      </template>
      <p v-else-if="store.job!.site.work === 'removed'" class="quiet">
        A unit is taken away: how it was left is asked at
        <router-link :to="{ name: 'survey', params: { id: store.id, part: 'ownership' } }" class="link"
          >ownership</router-link
        >.
      </p>
      <p v-else class="quiet">
        No circuit feeds a charge point in this job. Bring in a job file that has one, or start from a blank sheet.
      </p>
    </template>
    <template #aside>
      <ChecksLedger
        :stages="['survey', 'design', 'live']"
        :title="protecting ? 'Protecting people' : 'Checks'"
        :filter="filter"
      />
    </template>
  </StageColumns>
</template>

<style scoped>
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  margin: -6px 0 14px;
  border-bottom: 1px solid var(--line);
}
.parts a {
  color: var(--quiet);
  text-decoration: none;
  font-size: 0.95rem;
  padding: 8px 0 6px;
  min-height: 44px;
  display: flex;
  align-items: center;
  border-bottom: 3px solid transparent;
}
.parts a.here {
  color: var(--ink);
  font-weight: 700;
  border-bottom-color: var(--copper);
}
@media (max-width: 839px) {
  .parts {
    flex-wrap: nowrap;
    overflow-x: auto;
    scrollbar-width: none;
  }
  .parts a {
    white-space: nowrap;
  }
}
</style>
