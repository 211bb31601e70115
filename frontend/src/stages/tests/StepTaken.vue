<script setup lang="ts">
// What was kept of this step, first to last; taking it again keeps them all and asks why.
import { computed } from 'vue'

import type { Reading } from '../../api/types'
import { useJob } from '../../job/useJob'
import { figureWords, readingWords } from '../../readings/readingWords'
import type { ShownStep } from '../../readings/waiting'
import { dayAndTime } from '../../shared/format'

const LATE_MS = 60_000

const props = defineProps<{ step: ShownStep; typing: boolean }>()
const why = defineModel<string>({ required: true })
const emit = defineEmits<{ back: [] }>()

const readWords = (one: Reading) => (one.value === null ? one.outcome : figureWords(one, props.step))
const earlier = computed(() =>
  props.step.earlier.map((one) => ({
    read: readWords(one),
    by: one.taken_by,
  })),
)
/** What was taken back, each with who did so and why. */
const back = computed(() =>
  props.step.taken_back
    .filter((one) => one.outcome === 'taken_back')
    .map((entry) => {
      const read = props.step.taken_back.find(
        (one) => one.taken_at === entry.follows?.taken_at && one.taken_by === entry.follows.taken_by,
      )
      return { entry, read: read ? readWords(read) : 'a reading' }
    }),
)
const store = useJob()
const isHold = computed(() => props.step.kind === 'hold')
/** A hold that a job file told of: history, that counts for nothing here. */
const elsewhere = computed(() =>
  store.job!.elsewhere.holds.findLast((one) => one.step === props.step.step && one.subject === props.step.subject),
)
/** A hold that was signed without network came later; a minute's wait is not worth telling. */
const came = computed(() => {
  const { taken_at: made, came_at } = props.step.reading ?? { taken_at: '', came_at: null }
  return came_at && Date.parse(came_at) - Date.parse(made) > LATE_MS ? came_at : ''
})
</script>

<template>
  <p v-if="elsewhere && !step.reading" class="quiet">
    Signed elsewhere, by {{ elsewhere.taken_by }}, {{ dayAndTime(elsewhere.taken_at) }}. It doesn’t count here: look,
    and sign it yourself.
  </p>
  <div v-if="step.reading" class="taken">
    <p>
      {{ step.waits ? 'On this device, not yet saved:' : 'Kept:' }} <b class="figure">{{ readingWords(step) }}</b> by
      {{ step.reading.taken_by
      }}<template v-if="step.reading.entered_by">, entered by {{ step.reading.entered_by }}</template
      ><template v-if="isHold">, as typed</template>, {{ dayAndTime(step.reading.taken_at)
      }}<template v-if="came">, came {{ dayAndTime(came) }}</template
      ><template v-if="step.reading.instrument">, {{ step.reading.instrument }}</template
      ><template v-if="step.reading.photo">, with a photo</template
      ><template v-if="earlier.length"
        >; before it
        <template v-for="(one, place) in earlier" :key="place"
          ><template v-if="place">, </template><span class="figure">{{ one.read }}</span> by {{ one.by }}</template
        ><template v-if="step.reading.again_because"> ({{ step.reading.again_because }})</template></template
      >.
    </p>
    <div class="why">
      <v-text-field v-model="why" label="Why retested, or taken back" maxlength="200" hide-details />
      <button v-if="!isHold" type="button" class="link" @click="emit('back')">Take it back</button>
    </div>
  </div>
  <p v-for="(one, place) in back" :key="place" class="quiet">
    <span class="figure">{{ one.read }}</span> taken back by {{ one.entry.taken_by }}: {{ one.entry.reason }}
  </p>
</template>

<style scoped>
.taken {
  display: grid;
  gap: 8px;
  font-size: 0.95rem;
  max-width: 560px;
}
.why {
  display: flex;
  gap: 6px 14px;
  align-items: center;
}
.why > :first-child {
  flex: 1 1 auto;
}
.why .link {
  flex: none;
  min-height: 44px;
}
</style>
