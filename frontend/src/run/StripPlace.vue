<script setup lang="ts">
// One place of the strip: a node or the way between two, its name, what opens there, and how much is still to do.
import { computed } from 'vue'

import type { StripNode } from './useStrip'

const props = defineProps<{ node: StripNode; name: string; opens: string; left: number; here: boolean }>()
defineEmits<{ go: [] }>()

const isWay = computed(() => props.node.kind === 'route')
const label = computed(() =>
  [
    isWay.value ? `Route: ${props.node.name}` : props.node.name,
    props.node.opens,
    props.left ? `${props.left} to do here` : '',
    props.here ? 'you are here' : '',
  ]
    .filter(Boolean)
    .join(', '),
)
const style = computed(() => ({
  left: `${isWay.value ? props.node.x : props.node.x - props.node.width / 2}px`,
  width: `${props.node.width}px`,
}))
</script>

<template>
  <button
    type="button"
    class="place"
    :class="[node.kind, { here }]"
    :style="style"
    :aria-current="here ? 'location' : undefined"
    @click="$emit('go')"
  >
    <span class="sr-only">{{ label }}</span>
    <span v-if="!isWay" class="mark" />
    <span v-if="left" class="badge figure" aria-hidden="true">{{ left }}</span>
    <span v-if="name" class="name" aria-hidden="true">{{ name }}</span>
    <span v-if="opens" class="opens figure" aria-hidden="true">{{ opens }}</span>
  </button>
</template>

<style scoped>
.place {
  position: absolute;
  top: 4px;
  height: 54px;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
.mark {
  position: absolute;
  left: 50%;
  top: 22px;
  width: 24px;
  height: 24px;
  transform: translate(-50%, -50%);
  border: 2px solid var(--ink);
  border-radius: 4px;
  background: var(--sheet);
}
.meter .mark {
  border-radius: 50%;
}
.charge_point .mark {
  height: 30px;
  border-radius: 8px;
}
.here .mark {
  background: var(--copper);
}
.badge {
  position: absolute;
  left: calc(50% + 4px);
  top: 0;
  min-width: 18px;
  padding: 0 4px;
  border-radius: 9px;
  background: var(--needs);
  color: var(--sheet);
  font-size: 12px;
  font-weight: 700;
  line-height: 18px;
}
.route .badge {
  left: 50%;
  transform: translateX(-50%);
  top: 12px;
}
/* Where the strip is short, out of the way of what opens before it. */
@media (max-width: 700px) {
  .route .badge {
    left: auto;
    right: 0;
    transform: none;
  }
}
.name {
  position: absolute;
  left: 50%;
  top: 36px;
  transform: translateX(-50%);
  white-space: nowrap;
  font-size: 13px;
}
.route .name {
  color: var(--quiet);
}
.here .name {
  font-weight: 700;
  text-decoration: underline 3px var(--copper);
  text-underline-offset: 4px;
}
.opens {
  position: absolute;
  left: calc(50% + 20px);
  top: 0;
  white-space: nowrap;
  font-size: 12px;
  color: var(--quiet);
  pointer-events: none;
}
.badge ~ .opens {
  left: calc(50% + 32px);
}
.place:focus-visible {
  outline-offset: -2px;
}
</style>
