<script setup lang="ts">
import { howMany } from '../say/counts'
import { useBalanceWords } from '../say/balance'
import { computed, ref, watch } from 'vue'
import { answered, api, type Assessment } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import { useWords } from '../shared/useWords'
import NoteForm from '../shared/NoteForm.vue'
import { waitingEntries } from '../shared/entries'
import { NOTE_KINDS } from '../say/notes'
import { useLife } from './useLife'
const { done } = useBalanceWords()

const { id, build, assessment, loadout } = useBuild()
const { quantity, number, units, exactness } = useUnits()
const words = useWords()
const { finish } = useLife()

const when = (at: string) =>
  new Date(at).toLocaleDateString([], { day: 'numeric', month: 'short', year: 'numeric' })
/** Notes, wishes, reminders and what happened to the plane, in one stream, the newest on top. */
const entries = computed(() => {
  const told = (build.value?.diary ?? []).map(({ id: key, at, words }) => ({
    key,
    at,
    words,
    kind: '',
    due: '',
  }))
  const kept = build.value?.field.notes ?? []
  const here = waitingEntries.value.flatMap(({ build: of, entry }) =>
    of === id.value && entry.entry === 'note' && !kept.some((each) => each.id === entry.id)
      ? [{ ...entry, due: entry.due ?? null }]
      : [],
  )
  const notes = [...kept, ...here].map((note) => ({
    key: note.id,
    at: note.at ?? '',
    words: note.words,
    kind: NOTE_KINDS.find((each) => each.value === note.kind)?.title ?? '',
    due: note.due ?? '',
  }))
  return [...told, ...notes].sort((one, other) => other.at.localeCompare(one.at))
})

const day = ref('')
const then = ref<Assessment>()
watch(day, async (chosen) => {
  then.value = undefined
  if (!chosen) return
  try {
    const at = new Date(`${chosen}T23:59:59`).toISOString()
    then.value = await answered<Assessment>(
      api.GET('/api/v1/builds/{build_id}/as-of', {
        params: { path: { build_id: id.value }, query: { at } },
      }),
    )
  } catch (error) {
    words.complain(error)
  }
})
const answers = computed(() => {
  const of = then.value?.loadouts.find((each) => each.id === loadout.value?.id)
  return (of ?? then.value?.loadouts[0])?.answers ?? []
})
const auw = computed(() => answers.value.find((each) => each.kind === 'auw'))
const balance = computed(() => answers.value.find((each) => each.kind === 'balance'))
const unchecked = computed(() =>
  assessment.value?.unchecked.find((each) => each.loadout === loadout.value?.id),
)
</script>

<template>
  <section aria-label="Notebook">
    <h2>Notebook</h2>
    <p class="faint small">
      Notes, wishes for the next version, reminders, and what happened to the plane. A note is one
      key away on every place: <kbd>M</kbd>.
    </p>
    <NoteForm />
    <p v-if="unchecked" class="wrong small">
      Balance not checked since {{ when(unchecked.since.at) }}: {{ done(unchecked.since) }}.
    </p>
    <p v-if="!entries.length" class="faint small">
      Nothing yet. What is done to a part (press its name, then “it was repaired, replaced …”)
      stands here too.
    </p>
    <ol v-else>
      <li v-for="entry in entries" :key="entry.key">
        <span class="faint figure">{{ when(entry.at) }}</span>
        <span v-if="entry.kind" class="kind">{{ entry.kind }}</span> {{ entry.words }}
        <span v-if="entry.due" class="faint small">by {{ when(entry.due) }}</span>
      </li>
    </ol>
    <p class="asof">
      <label
        >the plane as it was on
        <v-text-field v-model="day" class="entry" type="date" aria-label="The plane as it was on" />
      </label>
      <span v-if="auw && auw.value !== null" class="figure" data-then
        >{{ quantity(auw.value, 'mass', exactness(auw.sd)) }}
        <span class="faint">±{{ number(2 * (auw.sd ?? 0), 'mass', exactness(auw.sd)) }}</span
        ><template v-if="balance && balance.value !== null && balance.unit === 'percent_mac'"
          >, {{ fixed(balance.value, 1) }} % MAC</template
        ></span
      >
      <span v-if="then" class="faint small">{{ howMany(then.parts.length, 'part') }} then</span>
    </p>
    <p>
      <v-checkbox-btn
        class="small"
        :model-value="build?.finished_at !== null"
        :label="`finished${build?.finished_at ? ` on ${when(build.finished_at)}` : ''}: what was left off its list teaches the next build`"
        @update:model-value="finish($event)"
      />
    </p>
    <p v-if="build?.allowance" class="faint small">
      Still to come counts as {{ fixed(100 * build.allowance.value, 1) }} ±{{
        fixed(200 * build.allowance.doubt, 1)
      }}
      % of the rest, as {{ build.allowance.source }} turned out ({{ units.mass.name }} on the
      Bench).
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  align-content: start;
}

section {
  max-width: 900px;
}

.kind {
  font-size: 12px;
  padding: 1px 6px;
  border: 1px solid var(--line);
}

li {
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  font-size: 14px;
}

.asof {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  font-size: 14px;
}
</style>
