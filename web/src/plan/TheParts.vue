<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import GroupMove from './GroupMove.vue'
import PartForm from './PartForm.vue'
import PartRow from './PartRow.vue'
import { isAdrift, useTable, type Column } from './useTable'
import TheseWords from '../shared/TheseWords.vue'
import PickList from '../shared/PickList.vue'

const { build, assessment } = useBuild()
const { number } = useUnits()

const editing = ref<string | null>(null)
/** Those that are placed one after the other, where the one that is open was opened for it. */
const waiting = ref<string[]>()
const table = useTemplateRef<{ $el: HTMLElement }>('table')
const masses = computed(() => new Map(assessment.value?.parts.map((mass) => [mass.id, mass])))
const parts = computed(() => build.value?.parts.filter((part) => !part.retired) ?? [])
const retired = computed(() => build.value?.parts.filter((part) => part.retired) ?? [])
const { find, only, grouped, sort, rows, sections, aria } = useTable(parts, masses, editing)

// A part that is gone closes its line: brought back, it stands there as it was.
watch(parts, (all) => {
  if (!all.some((part) => part.id === editing.value)) editing.value = null
})

function change(id: string) {
  waiting.value = undefined
  editing.value = id
}

/** It first, then those that stand below it, then those above. */
function place(id: string) {
  const all = rows.value.filter(({ part }) => isAdrift(part)).map(({ part }) => part.id)
  const at = all.indexOf(id)
  waiting.value = [...all.slice(at + 1), ...all.slice(0, at)]
  editing.value = id
}

/** A line that is done gives the hand back to its part, if it held it; one that was placed gives it
 * to the next that has no place. */
async function done(id: string, kept: boolean) {
  const room = table.value?.$el
  const isHeld = room?.contains(document.activeElement)
  const still = new Set(parts.value.filter(isAdrift).map((part) => part.id))
  const next = kept ? waiting.value?.filter((each) => still.has(each)) : undefined
  editing.value = next?.[0] ?? null
  waiting.value = next?.slice(1)
  await nextTick()
  if (isHeld && !editing.value) {
    room?.querySelector<HTMLElement>(`[data-part="${id}"] button`)?.focus()
  }
}

const ONLY = [
  { value: 'all', title: 'all parts' },
  { value: 'adrift', title: 'not placed' },
  { value: 'guessed', title: 'guesses' },
  { value: 'unweighed', title: 'not weighed' },
  { value: 'options', title: 'options' },
] as const
const COLUMNS: { key: Column; title: string; class?: string }[] = [
  { key: 'part', title: 'part' },
  { key: 'assembly', title: 'assembly', class: 'more' },
  { key: 'known', title: 'known by', class: 'more' },
]
/** What a group of the table weighs together, as the ledger tells of its assembly. */
function together(name: string): string {
  const told = assessment.value?.assemblies.find((each) => each.name === name)
  return told ? `${number(told.mass_g, 'mass')} ±${number(2 * told.sd_g, 'mass')}` : ''
}
</script>

<template>
  <section aria-label="Parts">
    <h2 class="over">Parts</h2>
    <PartForm />
    <div class="tools small">
      <label
        >find
        <v-text-field
          v-model="find"
          class="entry"
          type="search"
          data-find
          aria-label="Find a part in the table"
          @keydown.esc="find = ''"
      /></label>
      <label>only <PickList v-model="only" :items="ONLY" aria-label="Show only" /></label>
      <v-checkbox-btn v-model="grouped" label="by assembly" />
      <span class="faint" role="status">{{ rows.length }} of {{ parts.length }}</span>
    </div>
    <v-table ref="table" class="lined">
      <thead class="faint">
        <tr>
          <th
            v-for="column in COLUMNS"
            :key="column.key"
            :class="column.class"
            :aria-sort="aria(column.key)"
          >
            <button type="button" class="plainly sort" @click="sort(column.key)">
              {{ column.title }}
            </button>
          </th>
          <th class="more">figure</th>
          <th class="right more">pieces</th>
          <th class="right" :aria-sort="aria('nose')">
            <button type="button" class="plainly sort" @click="sort('nose')">from nose</button>
          </th>
          <th class="right more">from leading edge</th>
          <th class="right more">side</th>
          <th class="right more">up</th>
          <th class="more">option</th>
          <th class="now" :aria-sort="aria('now')">
            <button type="button" class="plainly sort" @click="sort('now')">now</button>
          </th>
        </tr>
      </thead>
      <tbody v-for="section in sections" :key="section.name">
        <tr v-if="grouped" class="group">
          <th colspan="10" scope="rowgroup">
            {{ section.name }}
            <GroupMove
              :name="section.name"
              :parts="section.rows.filter((row) => !row.part.host).map((row) => row.part.id)"
            />
          </th>
          <td class="figure now">{{ together(section.name) }}</td>
        </tr>
        <template v-for="{ part, mass } in section.rows" :key="part.id">
          <tr v-if="editing === part.id">
            <td colspan="11" class="editing">
              <PartForm :part="part" :placing="!!waiting" @done="(kept) => done(part.id, kept)" />
            </td>
          </tr>
          <PartRow
            v-else
            :part="part"
            :mass="mass"
            :data-part="part.id"
            @change="change(part.id)"
            @place="place(part.id)"
          />
        </template>
      </tbody>
    </v-table>
    <p v-if="!parts.length" class="faint">
      No parts yet. Type the first one above; its name and its weight are enough.
    </p>
    <TheseWords :of="['still to come']" />
    <p v-if="retired.length" class="faint small">
      Retired: {{ retired.map((part) => part.name).join(', ') }}. Their readings still speak for
      what they were weighed with.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  grid-template-columns: minmax(0, 1fr);
}

.over {
  position: absolute;
  clip-path: inset(50%);
  width: 1px;
  height: 1px;
  overflow: hidden;
}

.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
}

.sort {
  min-height: 24px;
}

.sort:hover {
  color: var(--ink);
  text-decoration: underline;
}

[aria-sort='ascending'] .sort::after {
  content: ' ↑';
}

[aria-sort='descending'] .sort::after {
  content: ' ↓';
}

.now {
  white-space: nowrap;
  text-align: right;
}

.lined th.now,
.lined th.right {
  text-align: right;
}

.group th {
  font-weight: 600;
  padding-top: 12px;
  border-bottom: 1px solid var(--ink);
}

.group td {
  border-bottom: 1px solid var(--ink);
}

.lined .editing {
  padding: 4px 0;
}

@media (max-width: 1000px) {
  .more {
    display: none;
  }
}
</style>
