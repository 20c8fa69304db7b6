<script setup lang="ts">
import { computed, ref } from 'vue'
import type { NoteKind } from '../api/client'
import { useFieldWords } from '../say/field'
import ChoiceButtons from '../shared/ChoiceButtons.vue'
import { useField } from './useField'

/** What went well, what to do better and when to be reminded: kept at the field, and read back. */
const { field, waiting, keepNote, setAside } = useField()
const { day } = useFieldWords()

const KINDS: { name: NoteKind; title: string; heading: string }[] = [
  { name: 'went_well', title: 'went well', heading: 'What went well' },
  { name: 'wish', title: 'for the next one', heading: 'For the next one' },
  { name: 'reminder', title: 'reminder', heading: 'Reminders' },
  { name: 'note', title: 'note', heading: 'Notes' },
]
const kind = ref<NoteKind | null>('wish')
const typed = ref('')
const due = ref('')
function add() {
  if (!typed.value.trim()) return
  keepNote(
    kind.value ?? 'note',
    typed.value.trim(),
    kind.value === 'reminder' && due.value ? due.value : null,
  )
  typed.value = due.value = ''
}
const notes = computed(() => {
  const kept = field.value?.log.notes ?? []
  const here = waiting.value.flatMap(({ entry }) =>
    entry.entry === 'note' && !kept.some((each) => each.id === entry.id)
      ? [{ ...entry, due: entry.due ?? null, done: false, waits: true }]
      : [],
  )
  return [...kept.map((each) => ({ ...each, waits: false })), ...here]
})
const groups = computed(() =>
  KINDS.map((each) => ({
    ...each,
    notes: notes.value.filter((one) => one.kind === each.name),
  })).filter((each) => each.notes.length),
)
const dueNow = computed(() => new Set((field.value?.told.reminders ?? []).map((each) => each.id)))
</script>

<template>
  <div class="notes">
    <h2>What to do better</h2>
    <form @submit.prevent="add">
      <ChoiceButtons v-model="kind" :options="KINDS" label="What it is" />
      <v-text-field v-model="typed" label="in your words" maxlength="300" autocomplete="off" />
      <v-text-field v-if="kind === 'reminder'" v-model="due" type="date" label="due" />
      <v-btn type="submit">Write it down</v-btn>
    </form>
    <template v-for="group in groups" :key="group.name">
      <h3>{{ group.heading }}</h3>
      <ul>
        <li v-for="each in group.notes" :key="each.id" :class="{ gone: each.done }">
          <span>
            <strong v-if="dueNow.has(each.id)" class="wrong">due {{ day(each.due) }}: </strong>
            <span v-else-if="each.due" class="faint">{{ day(each.due) }}: </span>
            {{ each.words }}
            <small v-if="each.waits" class="sea">waits</small>
          </span>
          <v-verb
            v-if="!each.waits"
            class="small faint"
            @click="setAside(each.id, each.done ? null : 'done')"
          >
            {{ each.done ? 'open it again' : 'done' }}
          </v-verb>
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.notes,
form {
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
}

li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
  min-height: 40px;
  border-bottom: 1px solid var(--line);
}

.gone > span {
  text-decoration: line-through;
}

.sea {
  color: var(--sea);
}
</style>
