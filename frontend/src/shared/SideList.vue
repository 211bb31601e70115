<script setup lang="ts">
// A list beside the work: where you are, what is settled, what is open. On a phone it folds behind one line.
import { ref } from 'vue'

export interface SideItem {
  key: string
  title: string
  figure: string
  open: boolean
  /** The item begins a new group, of this name. */
  head?: string
}

defineProps<{ items: SideItem[]; current: string; label: string; fold: string; step?: boolean }>()
const emit = defineEmits<{ choose: [key: string] }>()

const unfolded = ref(false)
function choose(key: string): void {
  unfolded.value = false
  emit('choose', key)
}
</script>

<template>
  <nav class="side" :class="{ unfolded }" :aria-label="label">
    <button type="button" class="fold link" :aria-expanded="unfolded" @click="unfolded = !unfolded">
      {{ unfolded ? 'Fold the list' : fold }}
    </button>
    <ol>
      <li v-for="item in items" :key="item.key" :class="{ apart: item.head !== undefined }">
        <p v-if="item.head" class="head">{{ item.head }}</p>
        <button
          type="button"
          :class="{ current: item.key === current, open: item.open }"
          :aria-current="item.key === current ? 'step' : undefined"
          @click="choose(item.key)"
        >
          <span>{{ item.title }}</span><span class="figure">{{ item.figure }}</span>
        </button>
      </li>
    </ol>
    <div class="below"><slot /></div>
  </nav>
</template>

<style scoped>
.side {
  background: var(--sheet);
  border-right: 1px solid var(--line);
  padding: 14px 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.apart {
  border-top: 1px solid var(--line);
  margin-top: 8px;
  padding-top: 8px;
}
.head {
  padding: 4px 23px 2px;
  font-size: 0.85rem;
  font-weight: 700;
  color: var(--quiet);
}
li button {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  padding: 6px 18px;
  background: none;
  border: 0;
  border-left: 5px solid transparent;
  text-align: left;
  font: inherit;
  font-size: 0.95rem;
  color: inherit;
  cursor: pointer;
}
li button.open {
  color: var(--quiet);
}
li button.current {
  border-left-color: var(--copper);
  background: var(--paper);
  font-weight: 700;
  color: var(--ink);
}
.figure {
  white-space: nowrap;
  font-size: 0.88rem;
}
.fold {
  display: none;
}
@media (max-width: 839px) {
  .side {
    padding: 0 14px;
    border-right: 0;
    border-bottom: 1px solid var(--line);
  }
  .fold {
    display: block;
    min-height: 44px;
  }
  ol,
  .below {
    display: none;
  }
  .unfolded ol,
  .unfolded .below {
    display: block;
  }
}
</style>
