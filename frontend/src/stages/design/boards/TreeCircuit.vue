<script setup lang="ts">
// A circuit of the tree: the device on its way, its cable, the boxes on the way, and what it feeds.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import { useCatalogue } from '../../../shared/useCatalogue'
import { useGuardActs } from '../../../shared/useGuardActs'
import BoxFacts from './BoxFacts.vue'
import CircuitFacts from './CircuitFacts.vue'
import GuardChip from './GuardChip.vue'
import LoadsFacts from './LoadsFacts.vue'
import GuardRow from './GuardRow.vue'
import TreeActs from './TreeActs.vue'
import TreeBoard from './TreeBoard.vue'
import TreePoint from './TreePoint.vue'
import { type TreeCircuit, useOpenPart } from './useTree'
import { useGuardWords } from './useGuardWords'

const props = defineProps<{ node: TreeCircuit }>()

const store = useJob()
const { open, toggle } = useOpenPart()
const { addBox } = useGuardActs()
const { viewAt } = useGuardWords()
const { words } = useCatalogue()
const path = computed(() => `circuits.${props.node.index}`)
const circuit = computed(() => props.node.circuit)
const view = computed(() => viewAt(`${path.value}.device`))
const length = computed(() => circuit.value.route.reduce((sum, one) => sum + one.length_m, 0))
const cable = computed(() => `${circuit.value.cable.csa_mm2} mm², ${length.value.toFixed(1)} m`)
const figures = computed(() =>
  store.evaluation?.profiles.flatMap((one) => one.chain).find((one) => one.circuit === circuit.value.id),
)
</script>

<template>
  <div class="circuit">
    <div class="head">
      <GuardChip
        :kind="view?.kind ?? 'breaker'"
        :words="view?.short ?? 'device'"
        :open="open === path"
        @press="toggle(path)"
      />
      <span class="name">{{ circuit.name }}</span>
      <span class="figure small quiet"
        >{{ cable }}<template v-if="figures">, {{ figures.load_a.toFixed(0) }} A</template></span
      >
    </div>
    <template v-if="open === path">
      <CircuitFacts :index="node.index" :point-index="node.pointIndex" />
      <LoadsFacts v-if="!circuit.feeds" :index="node.index" />
      <TreeActs :node="circuit.id" :name="circuit.name" />
    </template>
    <ol class="boxes">
      <li v-for="(box, index) in circuit.boxes" :key="box.id">
        <button
          type="button"
          class="tree-name"
          :aria-expanded="open === `${path}.boxes.${index}`"
          @click="toggle(`${path}.boxes.${index}`)"
        >
          {{ box.name }} <span class="quiet">{{ box.location }}</span>
        </button>
        <BoxFacts v-if="open === `${path}.boxes.${index}`" :circuit-index="node.index" :index="index" />
        <GuardRow :path="`${path}.boxes.${index}.guards`" :label="`in ${box.name}`" />
      </li>
      <li v-if="node.board" class="end"><TreeBoard :node="node.board" /></li>
      <li v-else-if="node.pointIndex >= 0" class="end"><TreePoint :index="node.pointIndex" /></li>
      <li v-else class="loads">
        {{ circuit.loads.map((one) => one.name || words('LoadKind', one.kind)).join(', ') || 'nothing said yet' }}
      </li>
    </ol>
    <button v-if="circuit.boxes.length < 4" type="button" class="link tree-add" @click="addBox(node.index)">
      + box on the way
    </button>
  </div>
</template>

<style src="./tree.css" />
<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
}
.name {
  font-weight: 700;
}
.loads {
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 8px 12px;
}
.boxes {
  list-style: none;
  margin: 6px 0 0;
  padding: 0 0 0 14px;
  border-left: 3px solid var(--copper);
  display: grid;
  gap: 8px;
}
@media (max-width: 560px) {
  .boxes {
    padding-left: 8px;
  }
}
</style>
