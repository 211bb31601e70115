<script setup lang="ts">
// The one next thing: what it is, how much is left after it, and a button that leads there.
import { onKeyStroke } from '@vueuse/core'
import { computed } from 'vue'

import type { StillToDo } from '../api/types'
import { isTyping } from '../shared/keys'
import { leadToThing } from './leadToThing'
import { STAGE_WORDS } from './stages'

const props = defineProps<{ id: number; told?: StillToDo; hold: boolean }>()

const first = computed(() => props.told?.things[0])
const more = computed(() => (props.told?.left ?? []).reduce((sum, one) => sum + one.count, 0) - 1)

function go(): void {
  if (first.value) void leadToThing(props.id, first.value)
}
onKeyStroke('g', (event) => {
  if (isTyping(event) || !first.value) return
  event.preventDefault()
  go()
})
</script>

<template>
  <section class="next" aria-label="Next">
    <p v-if="hold" class="hold" role="note">
      <router-link :to="{ name: 'survey', params: { id, part: 'operator' } }" class="link"
        ><b>Don’t start work yet</b></router-link
      >
    </p>
    <template v-if="first">
      <p class="what" aria-live="polite">
        <b>Next</b>
        <span class="words">{{ STAGE_WORDS[first.stage] }}: {{ first.words }}</span>
        <span v-if="more > 0" class="quiet more">then {{ more }} more</span>
      </p>
      <button type="button" class="go" aria-keyshortcuts="g" @click="go">Go <kbd>G</kbd></button>
    </template>
    <p v-else-if="told?.issued" class="what">
      <b>Issued</b>
      <router-link :to="{ name: 'papers', params: { id } }" class="link">{{ told.issued }}</router-link>
    </p>
    <p v-else-if="told" class="what">
      <b>Next</b> Nothing is missing, and the job changed since its certificate.
      <router-link :to="{ name: 'papers', params: { id } }" class="link">Issue it again</router-link>
    </p>
  </section>
</template>

<style scoped>
.next {
  display: flex;
  align-items: center;
  gap: 12px;
  /* As high before it is told as after. */
  min-height: 44px;
  padding: 0 20px;
  background: var(--next);
  border-bottom: 1px solid var(--line);
}
.what {
  flex: 1 1 auto;
  min-width: 0;
  display: flex;
  gap: 4px 10px;
  align-items: baseline;
}
.hold {
  flex: none;
  padding: 2px 10px;
  border-left: 5px solid var(--falls_short);
  background: var(--sheet);
}
.words {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
  overflow: hidden;
}
.more {
  white-space: nowrap;
}
.go {
  flex: none;
  min-height: 36px;
  padding: 4px 14px;
  border: 1px solid var(--ink);
  border-radius: 6px;
  background: var(--sheet);
  font: inherit;
  font-weight: 700;
  color: inherit;
  cursor: pointer;
}
@media (max-width: 839px) {
  .next {
    padding: 2px 14px;
    min-height: 48px;
    line-height: 1.25;
  }
  .next:has(.hold) {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 12px;
    .what {
      grid-row: 2;
    }
    .go {
      grid-row: 1 / 3;
      grid-column: 2;
    }
    .words {
      -webkit-line-clamp: 1;
      line-clamp: 1;
    }
  }
  .go {
    min-height: 44px;
  }
  .go kbd,
  .more {
    display: none;
  }
}
</style>
