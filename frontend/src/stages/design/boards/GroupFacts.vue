<script setup lang="ts">
// A group of ways: its name, and what else hangs behind it, which goes off with it.
import { computed } from 'vue'

import { useJob } from '../../../job/useJob'
import JobField from '../../../shared/fields/JobField.vue'
import TreeActs from './TreeActs.vue'

const props = defineProps<{ boardIndex: number; index: number }>()

const store = useJob()
const path = computed(() => `boards.${props.boardIndex}.groups.${props.index}`)
const group = computed(() => store.job!.boards[props.boardIndex]!.groups[props.index]!)
</script>

<template>
  <section class="facts" aria-label="Group of ways">
    <div class="fields">
      <JobField :path="`${path}.name`" label="Name" />
      <JobField :path="`${path}.feeds_others`" label="Other circuits behind it" kind="choice" choice="Seen" />
      <JobField :path="`${path}.others`" label="Which, such as freezer and lights" class="wide" />
    </div>
    <TreeActs :node="group.id" :name="group.name" />
  </section>
</template>

<style src="./tree.css" />
