<script setup lang="ts">
// A step that could not be tested: the reason is kept as its reading.
import { ref } from 'vue'

const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ because: [reason: string] }>()
const reason = ref('')

function keep(): void {
  open.value = false
  emit('because', reason.value.trim())
  reason.value = ''
}
</script>

<template>
  <v-dialog v-model="open">
    <v-card class="sheet">
      <form class="cannot" @submit.prevent="keep">
        <h2 class="headline">Could not test</h2>
        <v-textarea v-model="reason" label="Why not?" autofocus maxlength="200" />
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
