<script setup lang="ts">
import { computed, ref } from 'vue'
import { useUnits } from '../shared/units'
import { usePartsList } from './usePartsList'
import { whyLeftOut } from '../say/refusals'
import PickList from '../shared/PickList.vue'
import { titled } from '../shared/choices'

const { number, quantity, units } = useUnits()
const { file, told, wrong, isReading, left, ticked, open, take, tick, keep, close } = usePartsList()
const input = ref<HTMLInputElement>()

type Column = NonNullable<typeof told.value>['columns'][number]
const HOLDS = {
  name: 'name',
  assembly: 'assembly',
  mass: 'mass',
  mass_each: 'mass of each',
  pieces: 'pieces',
  station: 'station',
  side: 'side',
  height: 'height',
}
/** What a column may hold; what it does hold with the unit of its figures. */
const mayHold = ({ field, unit }: Column) => [
  { value: 'nothing', title: 'left out' },
  ...titled(HOLDS).map((each) =>
    each.value === field && unit ? { ...each, title: `${each.title}, ${unit}` } : each,
  ),
]
/** The first line of several pieces whose mass is read in one way and may be meant in the other. */
const several = computed(() => {
  const fields = told.value?.columns.map((each) => each.field) ?? []
  if (fields.includes('mass') && fields.includes('mass_each')) return undefined
  const column = told.value?.columns.find((each) =>
    ['mass', 'mass_each'].includes(each.field ?? ''),
  )
  const row = told.value?.rows.find(
    ({ pieces, mass_g, why_not }) => pieces > 1 && mass_g !== null && !why_not,
  )
  return column && row && { column, row, isEach: column.field === 'mass_each' }
})

function chosen(event: Event) {
  const from = event.target as HTMLInputElement
  const next = from.files?.[0]
  from.value = ''
  if (next) void open(next)
}
const shown = (value: number | null, kind: 'mass' | 'length') =>
  value === null ? '' : number(value, kind)
</script>

<template>
  <div class="from-file">
    <p class="small">
      Your own list as CSV or xlsx, whatever its columns are called and in any order; German or
      English decimals, grams or ounces, millimetres or inches. You see what was understood before
      anything is kept, and what is here already is not added twice.
    </p>
    <p>
      <v-btn @click="input?.click()">Choose a file</v-btn>
      <input
        ref="input"
        type="file"
        accept=".csv,.tsv,.txt,.xlsx,text/csv"
        hidden
        aria-label="List of parts"
        @change="chosen"
      />
      <span v-if="file" class="faint small called">{{ file.name }}</span>
    </p>
    <p v-if="isReading && !told" class="faint" aria-busy="true">Reading the list …</p>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <template v-if="told">
      <div class="columns">
        <label v-for="column in told.columns" :key="column.at" class="small"
          ><span class="faint">“{{ column.heading || `column ${column.at + 1}` }}” is</span>
          <PickList
            :model-value="column.field ?? 'nothing'"
            :items="mayHold(column)"
            :aria-label="`What “${column.heading || `column ${column.at + 1}`}” holds`"
            @update:model-value="take(column.at, $event)"
        /></label>
      </div>
      <p v-if="several" class="small">
        “{{ several.column.heading }}” is of {{ several.isEach ? 'each piece' : 'all the pieces' }}:
        {{ several.row.pieces }} × {{ several.row.name }} weigh
        {{ quantity(several.row.mass_g ?? 0, 'mass') }} together.
        <v-verb @click="take(several.column.at, several.isEach ? 'mass' : 'mass_each')">
          it is of {{ several.isEach ? 'all of them' : 'each' }}
        </v-verb>
      </p>
      <div class="wide" tabindex="0" role="group" aria-label="What was understood">
        <v-table class="lined">
          <thead class="faint">
            <tr>
              <th>take</th>
              <th>part</th>
              <th>assembly</th>
              <th class="right">mass, {{ units.mass.name }}</th>
              <th class="right">pieces</th>
              <th class="right">{{ units.length.name }} from nose</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in told.rows" :key="row.line" :class="{ faint: row.why_not }">
              <td>
                <input
                  v-if="!row.why_not"
                  type="checkbox"
                  :checked="!left.has(row.line)"
                  :aria-label="`Take ${row.name}`"
                  @change="tick(row)"
                />
              </td>
              <td>{{ row.name || `line ${row.line}` }}</td>
              <td>{{ row.assembly }}</td>
              <td class="figure right">{{ shown(row.mass_g, 'mass') }}</td>
              <td class="figure right">{{ row.pieces > 1 ? row.pieces : '' }}</td>
              <td class="figure right">{{ shown(row.station_mm, 'length') }}</td>
              <td class="small">{{ row.why_not && whyLeftOut(row.why_not) }}</td>
            </tr>
          </tbody>
        </v-table>
      </div>
      <p class="verbs">
        <v-btn class="press--main" :disabled="!ticked.length" @click="keep"
          >Take in {{ ticked.length }}</v-btn
        >
        <v-btn @click="close">Leave it</v-btn>
      </p>
    </template>
  </div>
</template>

<style scoped>
.from-file {
  display: grid;
  gap: 10px;
  grid-template-columns: minmax(0, 1fr);
}

.called {
  margin-left: 12px;
}

.columns {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
}

.columns label {
  display: grid;
}

.verbs {
  display: flex;
  gap: 10px;
}
</style>
