<script setup lang="ts">
// A board of the tree: its incomer, the groups of its ways with what stands before each, and its circuits.
import { computed } from 'vue'

import { useGuardActs } from '../../../shared/useGuardActs'
import BoardFacts from './BoardFacts.vue'
import GroupFacts from './GroupFacts.vue'
import GuardRow from './GuardRow.vue'
import TreeActs from './TreeActs.vue'
import TreeCircuit from './TreeCircuit.vue'
import { type TreeBoard, useOpenPart } from './useTree'

const props = defineProps<{ node: TreeBoard }>()

const { open, toggle } = useOpenPart()
const { addCircuit, addGroup } = useGuardActs()
const path = computed(() => `boards.${props.node.index}`)
const where = computed(() =>
  [props.node.origin ? 'at the origin' : '', props.node.board.location].filter(Boolean).join(', '),
)
</script>

<template>
  <div class="board">
    <button type="button" class="tree-name" :aria-expanded="open === path" @click="toggle(path)">
      {{ node.board.name }} <span class="quiet">{{ where }}</span>
    </button>
    <template v-if="open === path">
      <BoardFacts :board="node.board" :index="node.index" :origin="node.origin" />
      <TreeActs :node="node.board.id" :name="node.board.name" />
    </template>
    <GuardRow :path="`${path}.incomer`" :label="`in front of all ways of ${node.board.name}`" />
    <ul>
      <li v-for="one in node.circuits" :key="one.circuit.id"><TreeCircuit :node="one" /></li>
      <li v-for="one in node.groups" :key="one.group.id" class="group">
        <button
          type="button"
          class="tree-name"
          :aria-expanded="open === `${path}.groups.${one.index}`"
          @click="toggle(`${path}.groups.${one.index}`)"
        >
          {{ one.group.name }} <span class="quiet">{{ one.group.others ? `also ${one.group.others}` : '' }}</span>
        </button>
        <GroupFacts v-if="open === `${path}.groups.${one.index}`" :board-index="node.index" :index="one.index" />
        <GuardRow :path="`${path}.groups.${one.index}.guards`" :label="`in front of ${one.group.name}`" />
        <ul>
          <li v-for="circuit in one.circuits" :key="circuit.circuit.id"><TreeCircuit :node="circuit" /></li>
          <li v-if="!one.circuits.length" class="quiet small">None of this job’s circuits.</li>
        </ul>
      </li>
    </ul>
    <div class="adds">
      <button type="button" class="link tree-add" @click="addCircuit(node.board.id)">
        + circuit for sockets or lights
      </button>
      <button type="button" class="link tree-add" @click="addGroup(node.index)">+ group of ways</button>
    </div>
  </div>
</template>

<style src="./tree.css" />
<style scoped>
.board {
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 4px 12px 8px;
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0 0 0 14px;
  border-left: 3px solid var(--copper);
  display: grid;
  gap: 8px;
}
.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 0 20px;
}
.group {
  border: 1px dashed var(--quiet);
  border-radius: 6px;
  padding: 2px 10px 8px;
}
@media (max-width: 560px) {
  .board {
    padding: 4px 8px 8px;
  }
  ul {
    padding-left: 8px;
  }
}
</style>
