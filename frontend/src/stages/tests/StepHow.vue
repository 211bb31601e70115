<script setup lang="ts">
// Why the step is done, and what may stand for it or beside it; on a phone how, too, as the head of it has no room.
import { computed } from 'vue'
import { useDisplay } from 'vuetify'

import type { Step } from '../../api/types'
import { useCatalogue } from '../../shared/useCatalogue'
import StaysConnected from './StaysConnected.vue'
import StepWay from './StepWay.vue'

const props = defineProps<{ step: Step; offered: Step[] }>()
defineEmits<{ choose: [step: Step] }>()

const { smAndDown } = useDisplay()
const { stepText } = useCatalogue()
const text = computed(() => stepText(props.step))
</script>

<template>
  <div class="how">
    <p v-if="smAndDown">{{ text?.how }}</p>
    <p class="quiet">{{ text?.why }}</p>
    <p v-if="offered.length" class="offered">
      Or:
      <button v-for="one in offered" :key="one.step" type="button" class="link" @click="$emit('choose', one)">
        {{ one.title }}
      </button>
    </p>
    <StaysConnected :step="step" :asking="false" />
    <StepWay v-if="step.leads.length" :step="step" />
  </div>
</template>

<style scoped>
.how {
  display: grid;
  gap: 4px;
  font-size: 0.95rem;
}
.how > p {
  max-width: 66ch;
}
.offered {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: center;
}
</style>
