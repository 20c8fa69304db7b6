<script setup lang="ts">
import { computed } from 'vue'
import type { Choosing, Comparison } from '../api/client'
import { METRICS } from '../say/metrics'
import { QUALITIES, TRAITS } from '../say/qualities'
import { fixed, percent, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { isWorrying, useVerdicts } from '../shared/verdicts'
import type { Compared } from './useOtherWays'

/** What a row tells of one way: a figure, what is said of it, and words, one under the other. */
interface Cell {
  figure?: string
  beside?: string
  said?: string
  wrong?: boolean
  words?: string[]
}

const { compared } = defineProps<{ compared: Compared }>()
const emit = defineEmits<{ adopt: [way: Choosing, called: string] }>()

const { loadout } = useBuild()
const { number, units, exactLeft } = useUnits()
const { value, unit, words } = useVerdicts()

const NONE: Cell = { figure: '–' }
const flown = (loadouts: Compared['today']) =>
  loadouts.find((each) => each.id === loadout.value?.id)
const signed = (amount: number, text: string) => (amount > 0 ? `+${text}` : text)
const orNone = (amount: number | null | undefined, text: (amount: number) => string): Cell =>
  amount == null ? NONE : { figure: text(amount) }
const speed = (amount: number | null | undefined) =>
  orNone(amount || null, (some) => number(some, 'speed'))
const left = (amount: number | null | undefined) =>
  orNone(amount, (some) => number(some, 'mass', exactLeft(some)))

const columns = computed(() =>
  compared.ways.map((way) => ({
    ...way,
    called: way.lots.map((lot) => lot.name).join('; '),
    flown: flown(way.loadouts),
  })),
)
type Column = (typeof columns.value)[number]

function answered(answer: Comparison['today'][number]['answers'][number] | undefined): Cell {
  if (!answer) return {}
  return {
    ...orNone(answer.value, (some) => value(some, answer)),
    said: words(answer),
    wrong: isWorrying(answer.word),
  }
}
function weighs(way: Column): Cell {
  const beside = `±${number(2 * way.grams_sd, 'mass')}`
  const share = way.share === null ? '' : ` ${percent(way.share)}`
  return { figure: signed(way.grams, number(way.grams, 'mass')), beside: beside + share }
}
function minutes(amount: number): string {
  const round = Math.round(Math.abs(amount))
  const sign = amount < -0.5 ? '−' : amount > 0.5 ? '+' : ''
  return round >= 120 ? `${sign}${fixed(round / 60, 1)} h` : `${sign}${round} min`
}
function money(way: Column): Cell {
  if (way.money === null) return { said: 'a price is missing' }
  return { figure: signed(way.money, fixed(way.money, 2)) }
}
const noted = (way: Column) => [
  ...way.comes.map((each) => QUALITIES[each]),
  ...way.goes.map((each) => `no longer: ${QUALITIES[each]}`),
]

const rows = computed(() => {
  const today = flown(compared.today)
  const row = (title: string, unit: string, now: Cell, cell: (way: Column) => Cell) => ({
    title,
    unit,
    cells: [now, ...columns.value.map(cell)],
  })
  const mass = units.value.mass.name
  return [
    ...(today?.answers ?? []).map((answer, at) =>
      row(METRICS[answer.kind].title, unit(answer), answered(answer), (way) =>
        answered(way.flown?.answers[at]),
      ),
    ),
    row('these parts', mass, NONE, weighs),
    row('stalls at', units.value.speed.name, speed(today?.stall_m_s), (way) =>
      speed(way.flown?.stall_m_s),
    ),
    row('left to add', mass, left(today?.left_g), (way) => left(way.flown?.left_g)),
    row('work and waiting', '', NONE, (way) => ({ figure: minutes(way.minutes) })),
    row('money', '', NONE, money),
    row('gained', '', {}, (way) => ({ words: way.gained.map((each) => TRAITS[each].gained) })),
    row('given up', '', {}, (way) => ({ words: way.given_up.map((each) => TRAITS[each].givenUp) })),
    row('as noted', '', {}, (way) => ({ words: noted(way) })),
  ].filter((each) => each.title !== 'as noted' || columns.value.some((way) => noted(way).length))
})
</script>

<template>
  <div class="wide" tabindex="0" role="group" aria-label="A table, wider than the screen perhaps">
    <v-table>
      <thead>
        <tr>
          <th />
          <th>today</th>
          <th v-for="way in columns" :key="way.called">{{ way.called }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.title">
          <th>
            {{ row.title }} <span class="faint small">{{ row.unit }}</span>
          </th>
          <td v-for="(cell, at) in row.cells" :key="at">
            <span class="figure">{{ cell.figure }}</span>
            <span v-if="cell.beside" class="beside faint figure small">{{ cell.beside }}</span>
            <span v-if="cell.said" class="said small" :class="{ wrong: cell.wrong }">{{
              cell.said
            }}</span>
            <span v-for="each in cell.words" :key="each" class="said small">{{ each }}</span>
          </td>
        </tr>
        <tr>
          <th />
          <td />
          <td v-for="way in columns" :key="way.called">
            <v-verb @click="emit('adopt', way.asked, way.called)"
              >make it so ({{ way.changed.length }})</v-verb
            >
          </td>
        </tr>
      </tbody>
    </v-table>
    <p class="faint small">
      A part that was weighed retires with its readings; the new one takes its place, unweighed.
    </p>
  </div>
</template>

<style scoped>
.v-table {
  width: 100%;
}

th,
td {
  text-align: left;
  font-weight: 400;
  padding: 6px 14px 6px 0;
  vertical-align: top;
}

thead th {
  font-weight: 600;
  border-bottom: 1px solid var(--ink);
}

thead th,
td {
  min-width: 130px;
}

tbody tr {
  border-bottom: 1px solid var(--line);
}

.beside {
  margin-left: 6px;
}

.said {
  display: block;
}
</style>
