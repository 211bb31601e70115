<script setup lang="ts">
// What the core says of the figure that stands in the field, before it is kept.
import type { Finding } from '../../api/types'
import VerdictMark from '../../shared/VerdictMark.vue'

defineProps<{ findings: Finding[] }>()
</script>

<template>
  <div aria-live="polite" class="judged">
    <p v-for="finding in findings" :key="finding.rule">
      <VerdictMark :verdict="finding.verdict" :waits-for="finding.waits_for" /> {{ finding.title }}.&#32;<span
        :class="finding.verdict"
        >{{ finding.detail }}</span
      ><template v-if="finding.remedy"
        >{{ finding.detail.endsWith('.') ? '' : '.' }} <span class="quiet">{{ finding.remedy }}</span></template
      >
    </p>
  </div>
</template>

<style scoped>
.judged {
  font-size: 0.95rem;
  display: grid;
  gap: 3px;
}
@media (max-width: 839px) {
  .meets {
    display: none;
  }
}
</style>
