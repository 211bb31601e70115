<script setup lang="ts">
// A group of ways: its name, and what else hangs behind it, which goes off with it.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import { useOpenPart } from './useTree'

const props = defineProps<{ boardIndex: number; index: number }>()

const store = useJob()
const { open } = useOpenPart()
const path = computed(() => `boards.${props.boardIndex}.groups.${props.index}`)

/** The group goes, its circuits hang on the board itself again. */
function remove(): void {
  const job = store.job!
  const board = job.boards[props.boardIndex]!
  const gone = board.groups[props.index]!
  open.value = ''
  store.apply(`${gone.name} taken out`, [
    { field: `boards.${props.boardIndex}.groups`, value: board.groups.filter((one) => one !== gone) },
    ...job.circuits.flatMap((one, index) =>
      one.from_board === board.id && one.group === gone.id ? [{ field: `circuits.${index}.group`, value: '' }] : [],
    ),
  ])
}
</script>

<template>
  <section class="facts" aria-label="Group of ways">
    <div class="fields">
      <JobField :path="`${path}.name`" label="Name" />
      <JobField :path="`${path}.feeds_others`" label="Other circuits behind it" kind="choice" choice="Seen" />
      <JobField :path="`${path}.others`" label="Which, such as freezer and lights" class="wide" />
    </div>
    <button type="button" class="link" @click="remove">Take the group out</button>
  </section>
</template>

<style src="./tree.css" />
