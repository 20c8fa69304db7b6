<script setup lang="ts">
import NoteForm from './NoteForm.vue'
import { useEscape } from './useEscape'
import { useWords } from './useWords'

/** A note from any place, kept in the build's notebook. */
const open = defineModel<boolean>({ required: true })
useEscape(open)
const { say } = useWords()

function kept() {
  open.value = false
  say('Kept in the notebook, on the Plan.')
}
</script>

<template>
  <v-dialog v-model="open" max-width="560" aria-label="A note">
    <v-sheet class="sheet">
      <h2>A note</h2>
      <NoteForm focused @kept="kept" />
    </v-sheet>
  </v-dialog>
</template>

<style scoped>
.sheet {
  padding: 18px 22px;
  display: grid;
  gap: 12px;
}
</style>
