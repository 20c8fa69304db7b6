<script setup lang="ts">
import { howMany } from '../say/counts'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { answered, api, type NoteKind, type Opened } from '../api/client'
import { useFieldWords } from '../say/field'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import { useVerdicts } from '../shared/verdicts'
import { useWords } from '../shared/useWords'
import ChoiceButtons from '../shared/ChoiceButtons.vue'
import { useField } from './useField'

const { field, waiting, keepNote, setAside } = useField()
const { build, loadouts, nameOf } = useBuild()
const { quantity, stated, units } = useUnits()
const { value, unit, origin } = useVerdicts()
const said = useWords()
const router = useRouter()

const back = computed(() => field.value?.told.looking_back)
const { day } = useFieldWords()
/** The balance it was to have and the one it has, in the target's own unit. */
const balance = computed(() => {
  const target = back.value?.balance
  const answer = loadouts.value[0]?.answers.find((each) => each.kind === 'balance')
  if (!target || !answer) return undefined
  const of = `${unit(answer)} ${origin(answer)}`
  const [low, high] = [target.low, target.high].map((end) => end !== null && value(end, answer))
  const planned = low && high ? `${low} to ${high}` : low ? `at least ${low}` : `at most ${high}`
  return {
    planned: `${planned} ${of}`,
    is: answer.value === null ? '—' : `${value(answer.value, answer)} ${of}`,
  }
})

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

const name = ref('')
const beginNext = once(async () => {
  const given = name.value.trim() || `${build.value?.name ?? 'Build'} 2`
  try {
    const opened = await answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/next-version', {
        params: { path: { build_id: build.value?.id ?? '' } },
        body: { name: given },
      }),
    )
    await router.push({ name: 'plan', params: { id: opened.build.id } })
    said.say(`${given} begins with these weights as its figures, and the wishes for it.`)
  } catch (error) {
    said.complain(error)
  }
})
</script>

<template>
  <section v-if="back" aria-label="Looking back">
    <div class="was">
      <h2>Planned, and what became of it</h2>
      <v-table>
        <thead>
          <tr>
            <th></th>
            <th>planned</th>
            <th>became</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th>weight</th>
            <td class="figure">
              {{ quantity(back.planned_g, 'mass')
              }}<template v-if="back.limit_g !== null"
                >, limit {{ stated(back.limit_g) }} {{ units.mass.name }}</template
              >
            </td>
            <td class="figure">{{ quantity(back.weighs_g, 'mass') }}</td>
          </tr>
          <tr v-if="balance">
            <th>balance</th>
            <td class="figure">{{ balance.planned }}</td>
            <td class="figure">{{ balance.is }}</td>
          </tr>
          <tr>
            <th>time</th>
            <td>{{ day(back.begun_at) || 'not begun' }}</td>
            <td>
              {{
                back.finished_at
                  ? `${day(back.finished_at)}, ${howMany(Math.round(back.days ?? 0), 'day')}`
                  : 'not finished'
              }}
            </td>
          </tr>
          <tr>
            <th>money</th>
            <td></td>
            <td class="figure">
              {{ fixed(back.cost, 2)
              }}<span v-if="back.unpriced" class="faint small">
                and {{ back.unpriced }} without a price</span
              >
            </td>
          </tr>
        </tbody>
      </v-table>
      <template v-if="back.parts.length">
        <h3>What came out otherwise</h3>
        <ul>
          <li v-for="each in back.parts" :key="each.part">
            <span>{{ nameOf(each.part) }}</span>
            <span class="figure"
              >{{ quantity(each.planned_g, 'mass') }} → {{ quantity(each.weighs_g, 'mass') }}</span
            >
          </li>
        </ul>
      </template>
      <h3>The next version</h3>
      <form class="next" @submit.prevent="beginNext">
        <v-text-field
          v-model="name"
          :label="`name, or ${build?.name} 2`"
          maxlength="80"
          autocomplete="off"
        />
        <v-btn type="submit">Begin it</v-btn>
      </form>
      <p class="small faint">
        The same plan, what its parts weigh as figures, the controls and the wishes.
      </p>
    </div>
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
  </section>
</template>

<style scoped>
section {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 32px;
}

.was,
.notes,
form {
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
}

h2,
h3,
p {
  margin: 0;
}

.v-table {
  border-collapse: collapse;
}

th {
  text-align: left;
  font-weight: 500;
}

td,
th {
  padding: 6px 10px 6px 0;
  border-bottom: 1px solid var(--line);
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
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

.next {
  grid-template-columns: 1fr auto;
}

.sea {
  color: var(--sea);
}

@media (max-width: 900px) {
  section {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
