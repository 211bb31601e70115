<script setup lang="ts">
// The demand drawn against what must carry it: house and car on one bar, the fuse and a load limit as marks across it.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import { fixed } from '../../../shared/format'

const store = useJob()
const demand = computed(() => store.evaluation?.demand)
const supply = computed(() => store.job!.supply)
const WIDTH = 600
const drawn = computed(() => {
  const now = demand.value
  if (now?.house_a == null || now.total_a == null || now.held_a == null) return null
  const fuse = supply.value.cut_out_fuse_a
  const limit = supply.value.load_limit_a
  const most = Math.max(now.total_a, fuse ?? 0, limit ?? 0) * 1.12
  const x = (amps: number) => (amps / most) * WIDTH
  const marks = [
    ...(fuse === null ? [] : [{ words: `fuse ${fuse} A`, x: x(fuse), dashed: false }]),
    ...(limit === null ? [] : [{ words: `limit ${fixed(limit, 0)} A`, x: x(limit), dashed: true }]),
  ].sort((one, other) => one.x - other.x)
  return {
    house: x(now.house_a),
    total: x(now.total_a),
    held: x(now.held_a),
    marks,
    over: fuse !== null && now.held_a > fuse,
    told: `House ${fixed(now.house_a, 0)} A, car ${fixed(now.car_a, 0)} A, together ${fixed(now.held_a, 0)} A`,
  }
})
/** A caption stands away from the right edge, and the second below the first. */
const anchor = (at: number) => (at > WIDTH - 150 ? 'end' : 'start')
</script>

<template>
  <figure v-if="drawn" class="demand-bar">
    <svg
      :viewBox="`0 0 ${WIDTH} 84`"
      role="img"
      :aria-label="`${drawn.told}; ${drawn.marks.map((one) => one.words).join(', ')}`"
    >
      <rect x="0" y="30" :width="WIDTH" height="20" class="track" />
      <rect x="0" y="30" :width="drawn.house" height="20" class="house" />
      <rect :x="drawn.house" y="30" :width="drawn.total - drawn.house" height="20" class="car" />
      <rect
        v-if="drawn.total > drawn.held"
        :x="drawn.held"
        y="30"
        :width="drawn.total - drawn.held"
        height="20"
        class="away"
      />
      <g v-for="(one, place) in drawn.marks" :key="one.words">
        <line :x1="one.x" :x2="one.x" y1="22" y2="58" class="mark" :class="{ dashed: one.dashed }" />
        <text
          :x="one.x + (anchor(one.x) === 'end' ? -6 : 6)"
          :y="place % 2 ? 74 : 18"
          :text-anchor="anchor(one.x)"
          class="figure"
        >
          {{ one.words }}
        </text>
      </g>
    </svg>
    <figcaption class="small">
      <span class="key house" aria-hidden="true" /> house <span class="key car" aria-hidden="true" /> car
      <template v-if="drawn.total > drawn.held"
        ><span class="key away" aria-hidden="true" /> turned down by the limit</template
      >
      <b :class="{ over: drawn.over }">{{ drawn.told }}{{ drawn.over ? ', more than the fuse' : '' }}.</b>
    </figcaption>
  </figure>
</template>

<style scoped>
.demand-bar {
  margin: 0;
  max-width: 640px;
}
svg {
  display: block;
  width: 100%;
  height: auto;
}
.track {
  fill: var(--track);
}
.house {
  fill: var(--quiet);
  background: var(--quiet);
}
.car {
  fill: var(--copper);
  background: var(--copper);
}
.away {
  fill: var(--sheet);
  stroke: var(--copper);
  stroke-dasharray: 4 3;
  background: var(--sheet);
}
.key.away {
  outline: 1px dashed var(--copper);
}
.mark {
  stroke: var(--ink);
  stroke-width: 3;
}
.dashed {
  stroke-dasharray: 6 4;
}
text {
  font-size: 15px;
  fill: var(--ink);
}
@media (max-width: 839px) {
  text {
    font-size: 24px;
  }
}
.key {
  display: inline-block;
  width: 14px;
  height: 14px;
  margin: 0 4px 0 10px;
  vertical-align: -2px;
}
.key:first-child {
  margin-left: 0;
}
figcaption b {
  display: block;
  padding-top: 4px;
}
.over {
  color: var(--falls_short);
}
</style>
