<script setup lang="ts">
// What can be done with the part of the tree that is open: each act at one press, taken back at one press.
import { computed, ref } from 'vue'

import { answer, api } from '../../../api/client'
import type { TreeAct } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { useAsked } from '../../../shared/useAsked'
import { useTreeActs } from '../../../shared/useTreeActs'
import { useOpenPart } from './useTree'

const props = defineProps<{ node: string; name: string }>()

const store = useJob()
const { open } = useOpenPart()
const { act, refused } = useTreeActs()
const { found, failed } = useAsked(
  () => ({ job: store.judged!, node: props.node }),
  (body) => answer<{ acts: TreeAct[] }>(api.POST('/api/v1/tree/acts', { body })),
)
const presses = computed(() => found.value?.acts.filter((one) => one.kind !== 'move') ?? [])
const moves = computed(() => found.value?.acts.filter((one) => one.kind === 'move') ?? [])
// Nothing stays chosen: a move is made once.
const chosen = ref<TreeAct | null>(null)
const DONE = {
  take_out: 'taken out',
  duplicate: 'duplicated',
  move: 'moved',
  earlier: 'moved towards the supply',
  later: 'moved away from the supply',
  found: 'there already',
  fitted: 'new with this job',
} as const

/** After these the part is not where it was. */
const CLOSES = new Set<TreeAct['kind']>(['take_out', 'move', 'earlier', 'later'])

async function press(one: TreeAct): Promise<void> {
  if ((await act(props.node, one, `${props.name} ${DONE[one.kind]}`)) && CLOSES.has(one.kind)) open.value = ''
}
</script>

<template>
  <div class="acts" role="group" :aria-label="`What to do with ${name}`">
    <button v-for="one in presses" :key="one.kind" type="button" class="link" @click="press(one)">
      {{ one.words }}
    </button>
    <v-select
      v-if="moves.length"
      label="Move it"
      :items="moves"
      item-title="words"
      return-object
      hide-details
      density="compact"
      class="move"
      :model-value="chosen"
      @update:model-value="(one: TreeAct | null) => one && press(one)"
    />
    <p v-if="refused || failed" class="failed" role="alert">{{ refused || failed }}</p>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  align-items: center;
}
.acts .link {
  min-height: 44px;
}
.move {
  flex: 0 1 260px;
}
</style>
