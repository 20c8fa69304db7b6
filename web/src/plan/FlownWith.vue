<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { answered, api, type Opened } from '../api/client'
import { once } from '../shared/once'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { inARow } from '../say/names'
import { useWords } from '../shared/useWords'

/** Which packs and payloads may be aboard: parts of the plane, or new ones, on a line each. */
const { id, build, assessment, nameOf, send } = useBuild()
const { units, example } = useUnits()
const said = useWords()

type Kind = 'packs' | 'payloads'
const KINDS: { kind: Kind; title: string; like: [name: string, g: number, mm: number] }[] = [
  { kind: 'packs', title: 'packs', like: ['3-cell 1300,', 110, 90] },
  { kind: 'payloads', title: 'payloads', like: ['Camera', 62, 215] },
]
const named = reactive<Record<Kind, string[]>>({ packs: [], payloads: [] })
const typed = reactive<Record<Kind, string>>({ packs: '', payloads: '' })
const fields = ref<Pick<HTMLElement, 'focus'>[]>([])

const parts = computed(() => build.value?.parts.filter((part) => !part.retired) ?? [])
const partOf = (text: string) =>
  parts.value.find((part) => part.name.toLowerCase() === text.toLowerCase())

/** Packs that all fly at once stand there already: most often one at a time is meant. */
const atOnce = computed(() => (assessment.value?.packs_at_once ?? []).map(nameOf))
watch(
  atOnce,
  (now, before) => {
    if (now.join() !== before?.join()) named.packs = [...now]
  },
  { immediate: true },
)

function take(kind: Kind) {
  const text = typed[kind].trim()
  if (text && !named[kind].includes(text)) named[kind].push(text)
  typed[kind] = ''
}

/** A line as it would be typed in the chosen units. */
const asTyped = ([name, g, mm]: (typeof KINDS)[number]['like']) =>
  `${name} ${example(g, 'mass')} ${units.value.mass.name} at ${example(mm, 'length')}`

/** Enter takes the line; on an empty one it goes on, and makes the loadouts at the end. */
function entered(kind: Kind) {
  if (typed[kind].trim()) return take(kind)
  if (kind === 'packs') fields.value[1]?.focus()
  else void make()
}

function line(text: string) {
  const { mass, length, area, run } = units.value
  return {
    line: text,
    mass: mass.name,
    length: length.name,
    area: area.name.replace('²', '2'),
    run: run.name,
    assembly: '',
    sure: false,
  }
}

const make = once(async () => {
  take('packs')
  take('payloads')
  const there = (kind: Kind) => named[kind].flatMap((each) => partOf(each)?.id ?? [])
  const fresh = (kind: Kind) => named[kind].filter((each) => !partOf(each)).map(line)
  const kept = await send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/loadouts/from-packs', {
        params: { path: { build_id: id.value }, header },
        body: {
          packs: there('packs'),
          payloads: there('payloads'),
          new_packs: fresh('packs'),
          new_payloads: fresh('payloads'),
        },
      }),
    ),
  )
  if (!kept) return
  said.say(`${build.value?.loadouts.length} loadouts; what they carry is an option now.`)
  named.packs = []
  named.payloads = []
})
</script>

<template>
  <form class="flown slip" aria-label="Loadouts from packs and payloads" @submit.prevent="make">
    <h3>From packs and payloads, in one step</h3>
    <p v-if="atOnce.length">
      {{ inARow(atOnce) }} fly at once now. If one flies at a time, this makes a loadout of each.
    </p>
    <div v-for="each in KINDS" :key="each.kind" class="kind">
      <label
        >{{ each.title }}
        <v-text-field
          ref="fields"
          v-model="typed[each.kind]"
          class="entry"
          :data-first="each.kind === 'packs' ? '' : undefined"
          :aria-label="`The next of the ${each.title}`"
          :placeholder="asTyped(each.like)"
          list="carried"
          autocomplete="off"
          maxlength="120"
          @keydown.enter.prevent="entered(each.kind)"
      /></label>
      <v-verb
        v-for="(text, at) in named[each.kind]"
        :key="text"
        class="bare chip"
        :aria-label="`Leave ${text} out`"
        @click="named[each.kind].splice(at, 1)"
      >
        {{ text }} <span aria-hidden="true">✕</span>
      </v-verb>
    </div>
    <datalist id="carried">
      <option v-for="part in parts" :key="part.id" :value="part.name" />
    </datalist>
    <p class="faint small">
      A part that is on the list, by its name, or a new one on a line. Each pack flies plain and
      with each payload; nothing counts twice.
    </p>
    <v-btn type="submit">Make the loadouts</v-btn>
  </form>
</template>

<style scoped>
.kind {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
}

.kind label {
  display: flex;
  gap: 8px;
  align-items: center;
}

.kind .entry {
  width: min(320px, 60vw);
}

.chip {
  font-size: 14px;
  min-height: 32px;
  padding: 0 10px;
  background: var(--tag);
  border: 1px solid var(--tag-line);
}
</style>
