<script setup lang="ts">
// The stage's work on paper at the left, its checks on a sheet at the right; one column on a phone.
</script>

<template>
  <div class="columns">
    <div class="work"><slot /></div>
    <aside><slot name="aside" /></aside>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(340px, max(420px, 32%));
  min-height: 50vh;
}
.work {
  padding: 20px 24px;
  min-width: 0;
}
aside {
  background: var(--sheet);
  border-left: 1px solid var(--line);
  min-width: 0;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .work {
    padding: 16px 14px;
  }
  aside {
    border-left: 0;
    border-top: 1px solid var(--line);
  }
}
</style>
