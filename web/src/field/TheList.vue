<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { goesSideways, useFieldWords } from '../say/field'
import { useBuild } from '../shared/useBuild'
import FieldCard from './FieldCard.vue'
import ReadyRow from './ReadyRow.vue'
import { useField } from './useField'

const { field, told, lines, open, controls, addLine, setAside } = useField()
const { build } = useBuild()
const words = useFieldWords()

const fins = computed(
  () => new Set((build.value?.surfaces ?? []).filter((s) => s.role === 'fin').map((s) => s.id)),
)
const tabs = computed(() =>
  controls.value
    .filter((each) => each.kind === 'tab' || each.set_mm)
    .map((each) => `${each.name} ${words.setting(each.set_mm, goesSideways(each, fins.value))}`)
    .join(', '),
)
const rows = computed(() =>
  lines.value.map((line) => {
    const control = controls.value.find((each) => each.id === line.subject)
    const drawn = field.value?.told.controls.find((each) => each.id === line.subject)
    return {
      line,
      title: words.title(line, control),
      caution: words.caution(
        line,
        control,
        drawn,
        told.value?.ready.wind_m_s ?? null,
        tabs.value,
        control !== undefined && goesSideways(control, fins.value),
      ),
      why: line.reason ? words.why(line.reason) : '',
    }
  }),
)
// What is open comes first and stays where it was pressed until the list is opened anew.
const order = ref<string[]>([])
watch(
  rows,
  (all) => {
    const here = new Set(all.map((row) => row.line.id))
    const there = order.value.filter((each) => here.has(each))
    const fresh = all.filter((row) => !there.includes(row.line.id))
    const first = [...fresh.filter((r) => r.line.reason), ...fresh.filter((r) => !r.line.reason)]
    order.value = [...there, ...first.map((row) => row.line.id)]
  },
  { immediate: true },
)
const ordered = computed(() =>
  order.value.flatMap((each) => rows.value.find((row) => row.line.id === each) ?? []),
)

const last = computed(() =>
  lines.value.reduce(
    (latest, { closed_at }) => ((closed_at ?? '') > latest ? (closed_at ?? '') : latest),
    '',
  ),
)
const own = ref('')
function add() {
  const typed = own.value.trim()
  if (!typed) return
  addLine(typed)
  own.value = ''
}
</script>

<template>
  <section aria-label="Ready or not">
    <div class="list">
      <h1 :class="{ wrong: open.length }" aria-live="polite">
        {{ open.length ? `Not ready: ${open.length} of ${lines.length} open` : 'Ready' }}
      </h1>
      <p v-if="!open.length" class="small">
        Signed {{ words.clock(last) }}, with {{ told?.name }}. A repair, another pack or a moved
        part opens it again.
      </p>
      <p v-for="each in field?.told.reminders" :key="each.id" class="small wrong" role="note">
        {{ each.words }}: due since {{ words.day(each.due) }}
        <v-verb @click="setAside(each.id, 'done')">done</v-verb>
      </p>
      <ul>
        <ReadyRow v-for="row in ordered" :key="row.line.id" v-bind="row" />
      </ul>
      <v-btn class="press--main go" :to="{ query: { on: 'throw' } }" replace>
        {{ open.length ? 'Throw anyway' : 'Throw' }}
      </v-btn>
    </div>
    <div class="beside">
      <form @submit.prevent="add">
        <v-text-field v-model="own" label="A line of your own" maxlength="80" autocomplete="off" />
        <v-btn type="submit">Add it</v-btn>
      </form>
      <FieldCard />
      <p class="small faint" role="note">
        The list is arithmetic and habit, not permission: the maker's instructions, the local
        aviation authority and the club's rules come first.
      </p>
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  grid-template-columns: minmax(0, 640px) minmax(0, 420px);
  gap: 20px 48px;
}

.list,
.beside {
  display: grid;
  gap: 14px;
  align-content: start;
}

@media (max-width: 1000px) {
  section {
    grid-template-columns: minmax(0, 1fr);
  }

  .go.v-btn {
    position: sticky;
    bottom: 64px;
    z-index: 5;
  }
}

h1 {
  font-size: 20px;
}

form {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 10px;
}

.go {
  min-height: 56px;
}
</style>
