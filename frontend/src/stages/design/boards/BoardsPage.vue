<script setup lang="ts">
// Boards and circuits as the tree they are, each part edited in place: how a charge point is fed, what goes off.
import { computed } from 'vue'

import { answer, api } from '../../../api/client'
import type { LayoutChoice } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import TapGroup from '../../../shared/fields/TapGroup.vue'
import { useAsked } from '../../../shared/useAsked'
import { useTreeActs } from '../../../shared/useTreeActs'
import { useChain } from '../useChain'
import FaultTable from './FaultTable.vue'
import MakerCables from './MakerCables.vue'
import TreeBoard from './TreeBoard.vue'
import { provideOpenPart, useTree } from './useTree'

const store = useJob()
const { point, links } = useChain()
const { roots } = useTree()
provideOpenPart()
const asked = computed(() =>
  point.value && links.value.length ? { job: store.judged!, charge_point: point.value.id } : undefined,
)
const { found, failed } = useAsked(
  () => asked.value,
  (body) => answer<{ layouts: LayoutChoice[] }>(api.POST('/api/v1/layouts', { body })),
)
const layouts = computed(() => (found.value?.layouts ?? []).map((one, index) => ({ value: index, words: one.words })))
const { act, refused } = useTreeActs()

function lay(index: number): void {
  const chosen = found.value!.layouts[index]!
  if (!chosen.standing) store.apply(`fed ${chosen.words}`, chosen.changes)
}
</script>

<template>
  <section class="run-page" aria-label="Boards and circuits">
    <p v-if="failed || refused" class="failed" role="alert">{{ failed || refused }}</p>
    <TapGroup
      v-if="layouts.length > 1"
      :label="`How ${point?.name} is fed`"
      :answers="layouts"
      :chosen="(one) => found!.layouts[one]!.standing"
      @tap="lay"
    />
    <div class="tree" role="group" aria-label="The tree from the origin: press a part to edit it">
      <TreeBoard v-for="root in roots" :key="root.board.id" :node="root" />
    </div>
    <p v-if="!links.length" class="quiet">No circuit feeds a charge point in this job.</p>
    <div v-else class="acts">
      <v-btn
        variant="outlined"
        size="small"
        @click="act(point!.id, { kind: 'duplicate', to: '' }, 'a second charge point')"
        >Add a charge point beside it</v-btn
      >
      <v-btn
        v-if="store.job!.charge_points.length > 1"
        variant="text"
        size="small"
        @click="act(point!.id, { kind: 'take_out', to: '' }, `${point!.name} taken out`)"
        >Take {{ point!.name }} out</v-btn
      >
    </div>
    <FaultTable />
    <MakerCables />
  </section>
</template>

<style src="../page.css" />
<style scoped>
.tree {
  display: grid;
  gap: 12px;
}
</style>
