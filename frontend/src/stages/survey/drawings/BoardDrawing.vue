<script setup lang="ts">
// A board with its flap up: how its ways are made up.
import { computed } from 'vue'

const props = defineProps<{ makeUp: string }>()

interface Way {
  kind: 'switch' | 'rcd' | 'rcbo' | 'breaker' | 'fuse'
  x: number
  width: number
}

const KINDS: Record<string, Way['kind'][]> = {
  all_rcbo: ['switch', 'rcbo', 'rcbo', 'rcbo', 'rcbo', 'rcbo', 'rcbo'],
  split_load: ['switch', 'rcd', 'breaker', 'breaker', 'rcd', 'breaker', 'breaker'],
  breakers_only: ['switch', 'breaker', 'breaker', 'breaker', 'breaker', 'breaker', 'breaker'],
  rewirable: ['switch', 'fuse', 'fuse', 'fuse', 'fuse'],
}
const WIDTH = { switch: 26, rcd: 26, rcbo: 16, breaker: 16, fuse: 26 }
const ways = computed(() => {
  let x = 14
  return (KINDS[props.makeUp] ?? []).map((kind) => {
    const way = { kind, x, width: WIDTH[kind] }
    x += WIDTH[kind] + 2
    return way
  })
})
</script>

<template>
  <svg viewBox="0 0 176 96" class="drawing">
    <rect x="4" y="6" width="168" height="84" rx="5" class="body" />
    <g v-for="way in ways" :key="way.x">
      <template v-if="way.kind === 'fuse'">
        <rect :x="way.x" y="26" :width="way.width" height="46" rx="9" class="body" />
        <path :d="`M${way.x + 7} 40h12M${way.x + 7} 58h12`" class="thin" />
        <circle :cx="way.x + 13" cy="49" r="3" class="solid" />
      </template>
      <template v-else>
        <rect :x="way.x" y="24" :width="way.width" height="50" rx="1.5" class="body" />
        <rect :x="way.x + way.width / 2 - 3.5" y="36" width="7" height="16" class="solid" />
        <rect
          v-if="way.kind === 'rcd' || way.kind === 'rcbo'"
          :x="way.x + way.width / 2 - 3.5"
          y="61"
          width="7"
          height="7"
          class="body stroke-1-4"
        />
      </template>
      <text class="text-10" v-if="way.kind === 'rcd'" :x="way.x + 1" y="19">RCD</text>
    </g>
    <text v-if="makeUp === 'all_rcbo'" x="42" y="19" class="note text-10">test button in each</text>
  </svg>
</template>

<style src="./drawings.css" />
