<script setup lang="ts">
// A step that was left out: a limitation or not applicable, and the reason is kept as its reading.
import { ref, watch } from 'vue'

import type { Reading } from '../../api/types'
import TapGroup from '../../shared/fields/TapGroup.vue'

type LeftOut = Extract<Reading['outcome'], 'could_not_test' | 'not_applicable'>

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ kind: LeftOut; waivable: boolean }>()
const emit = defineEmits<{ because: [outcome: LeftOut, reason: string] }>()
const reason = ref('')
const outcome = ref<LeftOut>('could_not_test')
watch(open, () => (outcome.value = props.kind))
const ANSWERS = [
  { value: 'could_not_test', words: 'LIM: could not be tested' },
  { value: 'not_applicable', words: 'N/A: does not apply here' },
]

function keep(): void {
  open.value = false
  emit('because', outcome.value, reason.value.trim())
  reason.value = ''
}
</script>

<template>
  <v-dialog v-model="open" max-width="560">
    <v-card class="sheet">
      <form class="cannot" @submit.prevent="keep">
        <h2 class="headline">Left out</h2>
        <TapGroup
          label="Which?"
          :answers="ANSWERS"
          :chosen="(one) => one === outcome"
          @tap="outcome = $event as LeftOut"
        />
        <v-textarea v-model="reason" label="Why?" autofocus maxlength="200" rows="3" />
        <p v-if="!waivable" class="small quiet">
          This step is asked for on every job: the reason is kept, and the certificate still waits for it.
        </p>
        <div class="choices">
          <v-btn type="submit" color="ink" :disabled="reason.trim().length < 3">Keep the reason</v-btn>
          <v-btn variant="text" @click="open = false">Back</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.cannot {
  display: grid;
  gap: 14px;
}
.choices {
  display: flex;
  gap: 10px;
}
</style>
