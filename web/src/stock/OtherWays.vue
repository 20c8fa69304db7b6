<script setup lang="ts">
import { METRICS } from '../say/metrics'
import { computed, ref, watch } from 'vue'
import { answered, api, type Choosing, type Comparison, type Lot } from '../api/client'
import { QUALITIES, TRAITS } from '../say/qualities'
import { fixed, percent, useUnits } from '../shared/units'
import { useBeginnings } from '../shared/useBeginnings'
import { useBuild } from '../shared/useBuild'
import { whyNot } from '../shared/useQuantity'
import { useWords } from '../shared/useWords'
import { isWorrying, useVerdicts } from '../shared/verdicts'
import { FACES, useRack } from '../shared/useRack'

const { id, build, loadout, send } = useBuild()
const { rack } = useRack()
const { number, units } = useUnits()
const { value, unit, words } = useVerdicts()
const say = useWords()

const chosen = ref<string[]>([])
const lots = ref<string[]>([])
const faces = ref<NonNullable<Choosing['faces']>>([])
const told = ref<Comparison>()
const wrong = ref('')

const beginnings = useBeginnings()
const lotOf = (lot: string) => build.value?.lots.find((each) => each.id === lot)

/** The parts that are made of something, under what they are made of. */
const groups = computed(() =>
  (build.value?.lots ?? []).flatMap((lot) => {
    const parts = (build.value?.parts ?? []).filter(
      (part) => !part.retired && part.uses[0]?.lot === lot.id,
    )
    return parts.length ? [{ lot, parts }] : []
  }),
)
const chosenLots = computed(() => {
  const used = (build.value?.parts ?? [])
    .filter((part) => chosen.value.includes(part.id))
    .flatMap((part) => lotOf(part.uses[0]?.lot ?? '') ?? [])
  return [...new Set(used)]
})

function fits(other: Lot): boolean {
  return chosenLots.value.some((lot) => {
    const replaces = beginnings.value?.replaces[lot.kind] ?? []
    return lot.id !== other.id && replaces.includes(other.kind)
  })
}

const others = computed(() => {
  const own = (build.value?.lots ?? []).filter(fits)
  const taken = new Set(build.value?.lots.map((lot) => lot.rack))
  const shelved = (rack.data.value ?? [])
    .map((each) => each.lot)
    .filter((lot) => !taken.has(lot.id) && fits(lot))
  return [...own, ...shelved]
})
const canStrip = computed(() =>
  (['one', 'none'] as const).filter((each) =>
    chosenLots.value.some(
      (lot) =>
        lot.kind === 'foam' && (lot.faces === 'both' || (lot.faces === 'one' && each === 'none')),
    ),
  ),
)

function toggle<T>(list: T[], one: T): T[] {
  return list.includes(one) ? list.filter((each) => each !== one) : [...list, one]
}

function pressGroup(parts: string[]) {
  const all = parts.every((part) => chosen.value.includes(part))
  const rest = chosen.value.filter((part) => !parts.includes(part))
  chosen.value = all ? rest : [...rest, ...parts]
}

watch([others, canStrip], () => {
  const known = new Set(others.value.map((lot) => lot.id))
  lots.value = lots.value.filter((lot) => known.has(lot))
  faces.value = faces.value.filter((each) => (canStrip.value as string[]).includes(each))
})

watch([chosen, lots, faces, () => build.value?.weighings.length], async () => {
  wrong.value = ''
  const ask = { parts: chosen.value, lots: lots.value.slice(0, 6), faces: faces.value }
  if (!chosen.value.length || ask.lots.length + ask.faces.length === 0) {
    told.value = undefined
    return
  }
  try {
    const fresh = await answered<Comparison>(
      api.POST('/api/v1/builds/{build_id}/alternatives', {
        params: { path: { build_id: id.value } },
        body: ask,
      }),
    )
    told.value = fresh
  } catch (error) {
    wrong.value = whyNot(error)
  }
})

const columns = computed(() => {
  const today = told.value?.today.find((each) => each.id === loadout.value?.id)
  return (told.value?.alternatives ?? []).map((way) => ({
    ...way,
    flown: way.loadouts.find((each) => each.id === loadout.value?.id),
    answers: way.loadouts.find((each) => each.id === loadout.value?.id)?.answers ?? [],
    today: today?.answers ?? [],
  }))
})
const flown = computed(() => told.value?.today.find((each) => each.id === loadout.value?.id))
const today = computed(() => flown.value?.answers ?? [])
const left = (way: Comparison['today'][number] | undefined) =>
  way?.left_g == null ? '–' : number(way.left_g, 'mass', 0)

const signed = (amount: number, text: string) => (amount > 0 ? `+${text}` : text)
function minutes(amount: number): string {
  const round = Math.round(Math.abs(amount))
  const sign = amount < -0.5 ? '−' : amount > 0.5 ? '+' : ''
  return round >= 120 ? `${sign}${fixed(round / 60, 1)} h` : `${sign}${round} min`
}

async function adopt(way: Comparison['alternatives'][number]) {
  const stripped = faces.value.find((each) => way.lot.id.includes(`-${each}`) && !way.lot.rack)
  const known = others.value.find((lot) => lot.id === way.lot.id || lot.rack === way.lot.rack)
  const choosing: Choosing =
    known && (known.id === way.lot.id || way.lot.rack)
      ? { parts: chosen.value, lots: [known.id] }
      : { parts: chosen.value, faces: stripped ? [stripped] : [] }
  const done = await send((header) =>
    answered(
      api.POST('/api/v1/builds/{build_id}/alternatives/adopt', {
        params: { path: { build_id: id.value }, header },
        body: choosing,
      }),
    ),
  )
  if (!done) return
  say.say(`From ${way.lot.name} from now on.`)
  chosen.value = []
}
</script>

<template>
  <div class="ways">
    <section aria-label="Parts to make another way">
      <h2>Which parts?</h2>
      <p v-if="!groups.length" class="faint">
        No part is made of a lot yet. Give parts their sheet, tape or glue on the Plan, or cut them
        from outlines.
      </p>
      <div v-for="{ lot, parts } in groups" :key="lot.id" class="group">
        <v-verb class="bare head" @click="pressGroup(parts.map((part) => part.id))">
          <strong>{{ lot.name }}</strong> <span class="faint small under">all</span>
        </v-verb>
        <div class="chips">
          <v-verb
            v-for="part in parts"
            :key="part.id"
            class="bare chip"
            :class="{ on: chosen.includes(part.id) }"
            :aria-pressed="chosen.includes(part.id)"
            @click="chosen = toggle(chosen, part.id)"
          >
            {{ part.name }}
          </v-verb>
        </div>
      </div>
    </section>
    <section aria-label="Side by side">
      <h2>Made from what instead?</h2>
      <p v-if="!chosen.length" class="faint">
        Choose parts: paper on or off, glue or tape, another sheet, side by side with today.
      </p>
      <div v-else class="chips">
        <v-verb
          v-for="each in canStrip"
          :key="each"
          class="bare chip"
          :class="{ on: faces.includes(each) }"
          :aria-pressed="faces.includes(each)"
          @click="faces = toggle(faces, each)"
        >
          the same, {{ each === 'none' ? 'both papers off' : FACES[each] }}
        </v-verb>
        <v-verb
          v-for="lot in others"
          :key="lot.id"
          class="bare chip"
          :class="{ on: lots.includes(lot.id) }"
          :aria-pressed="lots.includes(lot.id)"
          @click="lots = toggle(lots, lot.id)"
        >
          {{ lot.name }}
        </v-verb>
        <span v-if="!others.length && !canStrip.length" class="faint"
          >Nothing on the rack is cut or run alike.</span
        >
      </div>
      <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
      <div
        v-if="columns.length"
        class="wide"
        tabindex="0"
        role="group"
        aria-label="A table, wider than the screen perhaps"
      >
        <v-table>
          <thead>
            <tr>
              <th />
              <th>today</th>
              <th v-for="way in columns" :key="way.lot.id">{{ way.lot.name }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(answer, at) in today" :key="answer.kind">
              <th>
                {{ METRICS[answer.kind].title }} <span class="faint small">{{ unit(answer) }}</span>
              </th>
              <td>
                <span class="figure">{{
                  answer.value === null ? '–' : value(answer.value, answer)
                }}</span>
                <span class="small" :class="{ wrong: isWorrying(answer.word) }">{{
                  words(answer)
                }}</span>
              </td>
              <td v-for="way in columns" :key="way.lot.id">
                <template v-if="way.answers[at]">
                  <span class="figure">{{
                    way.answers[at]!.value === null ? '–' : value(way.answers[at]!.value!, answer)
                  }}</span>
                  <span class="small" :class="{ wrong: isWorrying(way.answers[at]!.word) }">{{
                    words(way.answers[at]!)
                  }}</span>
                </template>
              </td>
            </tr>
            <tr class="sum">
              <th>
                these parts <span class="faint small">{{ units.mass.name }}</span>
              </th>
              <td class="faint">–</td>
              <td v-for="way in columns" :key="way.lot.id">
                <strong class="figure">{{ signed(way.grams, number(way.grams, 'mass')) }}</strong>
                <span class="faint figure small"> ±{{ number(2 * way.grams_sd, 'mass') }}</span>
                <span v-if="way.share !== null" class="figure small">
                  {{ percent(way.share) }}</span
                >
              </td>
            </tr>
            <tr>
              <th>stalls at <span class="faint small">m/s</span></th>
              <td class="figure">{{ flown?.stall_m_s ? fixed(flown.stall_m_s, 1) : '–' }}</td>
              <td v-for="way in columns" :key="way.lot.id" class="figure">
                {{ way.flown?.stall_m_s ? fixed(way.flown.stall_m_s, 1) : '–' }}
              </td>
            </tr>
            <tr>
              <th>
                left to add <span class="faint small">{{ units.mass.name }}</span>
              </th>
              <td class="figure">{{ left(flown) }}</td>
              <td v-for="way in columns" :key="way.lot.id" class="figure">{{ left(way.flown) }}</td>
            </tr>
            <tr>
              <th>work and waiting</th>
              <td class="faint">–</td>
              <td v-for="way in columns" :key="way.lot.id" class="figure">
                {{ minutes(way.minutes) }}
              </td>
            </tr>
            <tr>
              <th>money</th>
              <td class="faint">–</td>
              <td v-for="way in columns" :key="way.lot.id" class="figure">
                <template v-if="way.money !== null">{{
                  signed(way.money, fixed(way.money, 2).replace('-', '−'))
                }}</template>
                <span v-else class="faint small">a price is missing</span>
              </td>
            </tr>
            <tr>
              <th>gained</th>
              <td />
              <td v-for="way in columns" :key="way.lot.id" class="small">
                <span v-for="trait in way.gained" :key="trait" class="word">{{
                  TRAITS[trait].gained
                }}</span>
              </td>
            </tr>
            <tr>
              <th>given up</th>
              <td />
              <td v-for="way in columns" :key="way.lot.id" class="small">
                <span v-for="trait in way.given_up" :key="trait" class="word">{{
                  TRAITS[trait].givenUp
                }}</span>
              </td>
            </tr>
            <tr v-if="columns.some((way) => way.comes.length || way.goes.length)">
              <th>as noted</th>
              <td />
              <td v-for="way in columns" :key="way.lot.id" class="small">
                <span v-for="each in way.comes" :key="each" class="word">{{
                  QUALITIES[each]
                }}</span>
                <span v-for="each in way.goes" :key="each" class="word faint"
                  >no longer: {{ QUALITIES[each] }}</span
                >
              </td>
            </tr>
            <tr>
              <th />
              <td />
              <td v-for="way in columns" :key="way.lot.id">
                <v-verb @click="adopt(way)"> make it so ({{ way.changed.length }}) </v-verb>
              </td>
            </tr>
          </tbody>
        </v-table>
        <p class="faint small">
          A part that was weighed retires with its readings; the new one takes its place, unweighed.
        </p>
      </div>
    </section>
  </div>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: minmax(0, 4fr) minmax(0, 8fr);
  gap: 32px;
}

section {
  display: grid;
  gap: 10px;
  align-content: start;
}

.group {
  display: grid;
  gap: 4px;
}

.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.chip {
  border: 1px solid var(--tag-line);
  padding: 5px 9px;
  font-size: 14px;
}

.chip:hover {
  background: var(--sea-wash);
}

.on {
  background: var(--tag);
  border-color: var(--ink);
  box-shadow: inset 0 -3px 0 var(--brass);
}

.v-table {
  width: 100%;
}

th {
  text-align: left;
  font-weight: 400;
  padding: 6px 14px 6px 0;
  vertical-align: top;
}

thead th {
  font-weight: 600;
  border-bottom: 1px solid var(--ink);
  min-width: 130px;
}

td {
  padding: 6px 14px 6px 0;
  vertical-align: top;
  min-width: 130px;
}

tbody tr {
  border-bottom: 1px solid var(--line);
}

td .figure + .small {
  display: block;
}

.sum td .figure + .small {
  display: inline;
}

.word {
  display: block;
}
</style>
