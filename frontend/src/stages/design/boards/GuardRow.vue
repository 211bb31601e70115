<script setup lang="ts">
// The guards of one place in order, from the supply inwards, with the facts of the one that is open; more can be added.
import { computed } from 'vue'

import type { Guard } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { valueAt } from '../../../shared/paths'
import { useCatalogue } from '../../../shared/useCatalogue'
import { type GuardKind, useGuardActs } from '../../../shared/useGuardActs'
import GuardChip from './GuardChip.vue'
import GuardFacts from './GuardFacts.vue'
import { useGuardWords } from './useGuardWords'
import { useOpenPart } from './useTree'

const props = defineProps<{ path: string; label: string }>()

const store = useJob()
const { open, toggle } = useOpenPart()
const { options } = useCatalogue()
const { add } = useGuardActs()
const { wordsOf } = useGuardWords()
const guards = computed(() => (valueAt(store.job, props.path) as Guard[] | undefined) ?? [])
const kinds = computed(() => options('GuardKind'))
const opened = computed(() => guards.value.findIndex((_, index) => open.value === `${props.path}.${index}`))

function put(kind: GuardKind): void {
  const place = guards.value.length
  add(props.path, kind)
  open.value = `${props.path}.${place}`
}
</script>

<template>
  <div class="row" role="group" :aria-label="label">
    <template v-for="(guard, index) in guards" :key="guard.id">
      <GuardChip
        :kind="guard.kind"
        :words="wordsOf(guard, `${path}.${index}`)"
        :open="opened === index"
        @press="toggle(`${path}.${index}`)"
      />
      <span class="to" aria-hidden="true" />
    </template>
    <v-menu>
      <template #activator="{ props: menu }">
        <button type="button" class="link add" v-bind="menu" :aria-label="`Add a device ${label}`">+ device</button>
      </template>
      <v-list :aria-label="`Which device, ${label}`" role="menu">
        <v-list-item
          v-for="one in kinds"
          :key="String(one.value)"
          role="menuitem"
          @click="put(one.value as GuardKind)"
          >{{ one.words }}</v-list-item
        >
      </v-list>
    </v-menu>
  </div>
  <GuardFacts v-if="opened >= 0" :path="`${path}.${opened}`" />
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
}
.to {
  width: 12px;
  height: 3px;
  background: var(--copper);
}
.add {
  min-height: 44px;
  padding: 0 8px;
  font-size: 0.85rem;
}
</style>
