<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { onBeforeUnmount, ref } from 'vue'
import type { NoteKind } from '../api/client'
import { onHome, postEntry } from './entries'
import { NOTE_KINDS } from '../say/notes'
import { freshId } from './freshId'
import { useBuild } from './useBuild'
import { vFirst } from './vFirst'
import { ListLater } from './listLater'

/** A note on a build: it waits in the browser until the workshop has it. */
const emit = defineEmits<{ kept: [] }>()
defineProps<{ focused?: boolean }>()
const { id, query } = useBuild()

const kind = ref<NoteKind>('note')
/** What is typed stays until it is kept, though the sheet it stands in is put away. */
const words = useSessionStorage(() => `oaken-scale-note-${id.value}`, '')
const due = ref('')

function keep() {
  const typed = words.value.trim()
  if (!typed) return
  postEntry(id.value, {
    entry: 'note',
    id: freshId(),
    at: new Date().toISOString(),
    kind: kind.value,
    words: typed,
    due: kind.value === 'reminder' && due.value ? due.value : null,
    done: false,
  })
  words.value = due.value = ''
  emit('kept')
}
const stop = onHome((build) => {
  if (build === id.value) void query.refetch()
})
onBeforeUnmount(stop)
</script>

<template>
  <form class="note" @submit.prevent="keep">
    <ListLater v-model="kind" :items="NOTE_KINDS" aria-label="Kind of note" />
    <v-text-field
      v-model="words"
      v-first="focused"
      class="entry words"
      aria-label="Note"
      placeholder="what is worth writing down"
      autocomplete="off"
      maxlength="400"
    />
    <v-text-field
      v-if="kind === 'reminder'"
      v-model="due"
      class="entry"
      type="date"
      aria-label="Remind me on"
    />
    <v-verb type="submit" class="small">keep <kbd>Enter</kbd></v-verb>
  </form>
</template>

<style scoped>
.note {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 10px;
  align-items: center;
}

.words {
  flex: 1 1 240px;
}

button {
  min-height: 24px;
}
</style>
