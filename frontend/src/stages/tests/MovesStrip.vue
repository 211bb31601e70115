<script setup lang="ts">
// What to change before this step: where to go, what to turn, which lead to move. What stays is not told.
import {
  mdiCarElectric,
  mdiKnob,
  mdiLinkVariant,
  mdiPencil,
  mdiPowerPlugOutline,
  mdiRestart,
  mdiScrewdriver,
  mdiToggleSwitchOutline,
  mdiWalk,
} from '@mdi/js'
import { computed } from 'vue'

import type { Move } from '../../api/types'

const props = defineProps<{ moves: Move[] }>()

// The leads that move are marked where they are drawn; a signature is the step itself.
const told = computed(() => props.moves.filter((move) => move.kind !== 'lead' && move.kind !== 'sign'))

const ICONS: Record<Move['kind'], string> = {
  walk: mdiWalk,
  dial: mdiKnob,
  adapter: mdiCarElectric,
  lead: mdiPowerPlugOutline,
  link: mdiLinkVariant,
  switch: mdiToggleSwitchOutline,
  earth: mdiScrewdriver,
  unit: mdiScrewdriver,
  box: mdiScrewdriver,
  reset: mdiRestart,
  sign: mdiPencil,
}
</script>

<template>
  <ol v-if="told.length" class="moves" aria-label="What to change before it">
    <li v-for="(move, at) in told" :key="at" :class="move.kind">
      <v-icon :icon="ICONS[move.kind]" size="20" aria-hidden="true" /> {{ move.words }}
    </li>
  </ol>
  <p v-else-if="!moves.length" class="small quiet">Leave everything as it is.</p>
</template>

<style scoped>
.moves {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
li {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 5px 12px 5px 8px;
  background: var(--sheet);
  border: 1.5px solid var(--line);
  border-radius: 6px;
  font-weight: 700;
  font-size: 0.95rem;
}
li.walk {
  border-color: var(--ink);
}
/* The figure, what is expected and the limit stay above the pad. */
@media (max-width: 839px) {
  .moves {
    gap: 4px;
  }
  li {
    gap: 3px;
    padding: 1px 7px 1px 4px;
    font-size: 0.8rem;
  }
}
</style>
