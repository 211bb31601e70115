<script setup lang="ts">
// One way that no other beats: what it is, what it is best at, what it weighs and leaves over.
import { computed } from 'vue'

import type { FoundWay } from '../../../api/types'

const props = defineProps<{ way: FoundWay; letter: string }>()
defineEmits<{ take: [] }>()

const hours = computed(() => `${(props.way.work_min / 60).toFixed(1)} h`)
const figures = computed(() => [
  { name: 'copper and steel', value: `${props.way.metal_kg.toFixed(1)} kg` },
  { name: 'work', value: hours.value },
  { name: 'material', value: props.way.price.toFixed(0) },
  { name: 'to spare', value: `${props.way.spare_a.toFixed(0)} A` },
  { name: 'volts lost', value: `${props.way.drop_percent.toFixed(1)} %` },
  { name: 'least margin', value: `${(props.way.margin * 100).toFixed(0)} %` },
  { name: 'joints', value: String(props.way.joints) },
])
</script>

<template>
  <li :class="{ standing: way.standing }">
    <div class="head">
      <b
        ><span v-if="letter" class="letter">{{ letter }}</span
        >{{ way.cable }}</b
      >
      <span v-if="way.standing" class="quiet">as it stands</span>
      <v-btn v-else variant="outlined" size="small" @click="$emit('take')">Take it</v-btn>
    </div>
    <p class="small">{{ way.device }}, {{ way.layout }}</p>
    <p class="small quiet sentence-case">
      {{ way.protection }}<template v-if="way.conditions"> ({{ way.conditions }} to settle)</template>
    </p>
    <p v-if="way.best_at.length" class="best small">{{ way.best_at.join(', ') }}</p>
    <dl>
      <div v-for="one in figures" :key="one.name">
        <dt>{{ one.name }}</dt>
        <dd class="figure">{{ one.value }}</dd>
      </div>
    </dl>
  </li>
</template>

<style scoped>
li {
  background: var(--sheet);
  border: 1px solid var(--line);
  border-left: 5px solid var(--line);
  border-radius: 4px;
  padding: 12px 14px;
  display: grid;
  gap: 4px;
}
.standing {
  border-left-color: var(--copper);
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
}
.letter {
  display: inline-block;
  min-width: 26px;
  color: var(--copper);
}
.best {
  font-weight: 700;
}
.best::first-letter,
.sentence-case::first-letter {
  text-transform: uppercase;
}
dl {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 22px;
  margin: 4px 0 0;
}
dt {
  color: var(--quiet);
  font-size: 0.82rem;
}
dd {
  margin: 0;
  font-weight: 700;
}
</style>
