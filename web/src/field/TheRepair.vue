<script setup lang="ts">
import { inSentence } from '../say/names'
import { useWeighNext } from '../say/weighNext'
import { computed, reactive, ref } from 'vue'
import type { Schemas } from '../api/client'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import { understand, whyNot } from '../shared/useQuantity'
import ChoiceButtons from '../shared/ChoiceButtons.vue'
import { useField } from './useField'

const { field, mend } = useField()
const { build, assessment } = useBuild()
const { quantity, units } = useUnits()

interface Hurt {
  way: 'mended' | 'replaced' | 'off' | null
  glue: string
  patch: string
  name: string
  weighs: string
}
const WAYS = [
  { name: 'mended', title: 'mended' },
  { name: 'replaced', title: 'replaced' },
  { name: 'off', title: 'off for good' },
] as const
/** A hurt propeller or pack is replaced: what comes first says so. */
const isNeverMended = (id: string) => assessment.value?.never_mended.includes(id) ?? false
const waysOf = (id: string) =>
  isNeverMended(id) ? WAYS.filter((each) => each.name !== 'mended') : WAYS
const hurt = reactive(new Map<string, Hurt>())
const happened = ref('')
const wrong = ref('')
const done = ref(false)
const more = ref(false)

const parts = computed(() =>
  (build.value?.parts ?? []).filter(
    (each) => !each.retired && !each.host && each.pedigree !== 'allowance',
  ),
)
const listed = computed(() => (more.value ? parts.value : parts.value.slice(0, 14)))
const nameOf = (id: string) => parts.value.find((each) => each.id === id)?.name ?? id
function toggle(id: string) {
  if (hurt.has(id)) hurt.delete(id)
  else {
    const way = isNeverMended(id) ? 'replaced' : 'mended'
    hurt.set(id, { way, glue: '', patch: '', name: nameOf(id), weighs: '' })
  }
  done.value = false
}

const grams = (typed: string) => understand(typed, 'mass', units.value.mass.name)
async function damage(): Promise<Schemas['DamageDoc'][]> {
  const all: Schemas['DamageDoc'][] = []
  for (const [part, of] of hurt) {
    if (of.way === 'off') all.push({ part })
    else if (of.way === 'replaced') {
      if (!of.weighs.trim()) throw new Error(`${nameOf(part)}: say what the new one weighs, about`)
      const stated_g = await grams(of.weighs)
      all.push({
        part,
        replaced: { name: of.name.trim() || nameOf(part), pedigree: 'guess', stated_g },
      })
    } else {
      const added = []
      const named = inSentence(nameOf(part))
      if (of.glue.trim())
        added.push({
          name: `Glue on ${named}`.slice(0, 80),
          pedigree: 'joint' as const,
          stated_g: await grams(of.glue),
        })
      if (of.patch.trim())
        added.push({
          name: `Patch on ${named}`.slice(0, 80),
          pedigree: 'guess' as const,
          stated_g: await grams(of.patch),
        })
      if (!added.length) throw new Error(`${nameOf(part)}: say what glue or patch went on, about`)
      all.push({ part, added })
    }
  }
  return all
}

const keep = once(async () => {
  wrong.value = ''
  try {
    if (!hurt.size) throw new Error('Press each part that was hurt')
    const body = { words: happened.value.trim(), damage: await damage() }
    if (!(await mend(body))) return
    hurt.clear()
    happened.value = ''
    done.value = true
  } catch (error) {
    wrong.value = whyNot(error)
  }
})

const { what } = useWeighNext()
const next = computed(() => assessment.value?.weigh_next[0])
const repairs = computed(() => field.value?.told.looking_back.repairs ?? [])
const byThen = computed(() => repairs.value.at(-1)?.by_then_g ?? 0)
</script>

<template>
  <section aria-label="Crash and repair">
    <h2>What was hurt?</h2>
    <p class="small faint" role="note">
      Pack out first, and away from anything that burns; a crashed or puffed one is not charged
      again. Knife: fresh blade, fingers behind it. Glue fumes: air.
    </p>
    <div class="parts">
      <button
        v-for="each in listed"
        :key="each.id"
        type="button"
        :aria-pressed="hurt.has(each.id)"
        :class="{ on: hurt.has(each.id) }"
        @click="toggle(each.id)"
      >
        {{ each.name }}
      </button>
      <button v-if="parts.length > listed.length" type="button" class="all" @click="more = true">
        {{ parts.length - listed.length }} more …
      </button>
    </div>
    <form aria-label="The repair" @submit.prevent="keep">
      <fieldset v-for="[id, part] in hurt" :key="id">
        <legend>{{ nameOf(id) }}</legend>
        <ChoiceButtons
          v-model="part.way"
          :options="waysOf(id)"
          :label="`What became of ${nameOf(id)}`"
        />
        <p v-if="isNeverMended(id)" class="small faint" role="note">
          A hurt propeller or pack is not mended: a new one in its place.
        </p>
        <div v-if="part.way === 'mended'" class="two">
          <v-text-field
            v-model="part.glue"
            :label="`glue, ${units.mass.name}`"
            inputmode="decimal"
            autocomplete="off"
            hide-details
          />
          <v-text-field
            v-model="part.patch"
            :label="`patch, ${units.mass.name}`"
            inputmode="decimal"
            autocomplete="off"
            hide-details
          />
        </div>
        <div v-else-if="part.way === 'replaced'" class="two">
          <v-text-field
            v-model="part.name"
            label="the new one"
            maxlength="80"
            autocomplete="off"
            hide-details
          />
          <v-text-field
            v-model="part.weighs"
            :label="`weighs about, ${units.mass.name}`"
            inputmode="decimal"
            autocomplete="off"
            hide-details
          />
        </div>
      </fieldset>
      <template v-if="hurt.size">
        <v-text-field
          v-model="happened"
          label="what happened"
          maxlength="200"
          autocomplete="off"
          hide-details
        />
        <p class="small faint">
          Estimates do: put each on the pan afterwards and the ledger finds the glue.
        </p>
        <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
        <v-btn class="press--main" type="submit">Write the repair down</v-btn>
      </template>
    </form>
    <p v-if="done" role="status">
      Written down. The list is open again, and the balance counts as not checked.
      <template v-if="next">
        Weigh next: <router-link :to="{ name: 'bench' }">{{ what(next) }}</router-link>.
      </template>
    </p>
    <template v-if="repairs.length">
      <h3>What repairs and new parts have added</h3>
      <ol>
        <li v-for="each in repairs" :key="each.at + each.words">
          <span
            >{{
              new Date(each.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })
            }}, {{ each.words }}</span
          >
          <span class="figure"
            >{{ each.added_g > 0 ? '+' : '' }}{{ quantity(each.added_g, 'mass') }}</span
          >
        </li>
      </ol>
      <p class="small">
        {{ quantity(Math.abs(byThen), 'mass') }} {{ byThen < 0 ? 'lighter' : 'heavier' }} by them
        than it was built.
      </p>
    </template>
  </section>
</template>

<style scoped>
section,
form {
  display: grid;
  gap: 12px;
  max-width: 680px;
}

p,
h2,
h3 {
  margin: 0;
}

.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.parts button {
  min-height: 44px;
  padding: 4px 12px;
  font: inherit;
  color: var(--ink);
  background: var(--tag);
  border: 1px solid var(--tag-line);
  cursor: pointer;
}

.parts .all {
  background: none;
}

.parts .on {
  color: var(--linen);
  background: var(--ink);
  border-color: var(--ink);
}

fieldset {
  display: grid;
  gap: 10px;
  border: 1px solid var(--line);
  background: var(--paper);
  padding: 8px 12px 12px;
}

legend {
  font-weight: 600;
  padding: 0 4px;
}

.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}

ol {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  justify-content: space-between;
  gap: 14px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
</style>
