<script setup lang="ts">
import { METRICS } from '../say/metrics'
import { computed } from 'vue'
import type { Choice } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import ChoicePicture from './ChoicePicture.vue'
import ListingForm from './ListingForm.vue'
import { useChoices } from './useChoices'

const { choices, listed, adopt } = useChoices()
const { loadout } = useBuild()
const { number, quantity, inProportion, units } = useUnits()

const KNOWN = { run: 'run', stated: 'stated', calculated: 'calculated', guess: 'a guess' }

function balance({ balance: told }: Choice): string {
  const aft = (mm: number) => `${quantity(Math.abs(mm), 'length')} ${mm > 0 ? 'aft' : 'forward'}`
  if (told.how === 'as it is') return 'as it is'
  if (told.how === 'by moving')
    return told.pack_mm === null ? 'by moving more than the pack' : `slide it ${aft(told.pack_mm)}`
  if (told.how === 'with ballast') return `with ${quantity(told.ballast_g ?? 0, 'mass')} of ballast`
  if (told.how === 'not') return `not: ${quantity(told.short_mm ?? 0, 'length')} short`
  return 'say where the parts sit'
}
const rows = computed(() =>
  choices.value
    .map((each, key) => ({
      ...each,
      key,
      told: balance(each),
      broken: each.breaks.map((kind) => METRICS[kind].title.toLowerCase()).join(', '),
    }))
    // What breaks no target stands on top, and of that what nothing beats.
    .sort(
      (a, b) =>
        a.breaks.length - b.breaks.length ||
        Number(b.unbeaten) - Number(a.unbeaten) ||
        a.auw_g - b.auw_g,
    ),
)
</script>

<template>
  <section aria-label="Which pack, which motor">
    <h2>Which pack, which motor</h2>
    <p class="small faint">
      In the place of the pack of “{{ loadout?.name }}”: what lies in the drawer and says its cells
      and mAh (or Kv), and what you list here. Nothing is kept until it is taken.
    </p>
    <ChoicePicture :choices="choices" />
    <div class="wide" tabindex="0" role="group" aria-label="A table, wider than the screen perhaps">
      <v-table class="choices">
        <thead>
          <tr>
            <th>pack, motor</th>
            <th class="right">all up, {{ units.mass.name }}</th>
            <th class="right">thrust-to-weight</th>
            <th class="right">amps</th>
            <th class="right">minutes</th>
            <th>balance</th>
            <th>breaks</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.key">
            <td>
              <strong>{{ row.pack }}<span v-if="row.unbeaten"> ◆</span></strong>
              <div class="faint small">
                {{ row.motor ?? 'the motor that flies' }}, {{ KNOWN[row.known] }}
              </div>
            </td>
            <td class="figure right">
              {{ number(row.auw_g, 'mass', inProportion(row.auw_g)) }}
            </td>
            <td class="figure right" :class="{ wrong: row.breaks.includes('thrust_to_weight') }">
              {{ fixed(row.thrust_to_weight, 2) }}
              <div class="faint small">±{{ fixed(2 * row.thrust_to_weight_sd, 2) }}</div>
            </td>
            <td class="figure right" :class="{ wrong: row.rung === 'over' }">
              {{ fixed(row.pack_a, 1) }}
              <div class="faint small">±{{ fixed(2 * row.pack_sd_a, 1) }}</div>
              <div v-if="row.rung !== 'in hand'" class="small">{{ row.rung }}</div>
            </td>
            <td class="figure right">
              <template v-if="row.minutes !== null"
                >{{ fixed(row.minutes, 1) }}
                <div class="faint small">±{{ fixed(2 * (row.minutes_sd ?? 0), 1) }}</div></template
              >
              <template v-else>–</template>
            </td>
            <td class="small" :class="{ wrong: row.balance.how === 'not' }">{{ row.told }}</td>
            <td class="small wrong">{{ row.broken }}</td>
            <td>
              <span v-if="row.loadouts.length" class="faint small">flies already</span>
              <v-btn
                v-else-if="row.motor === null"
                size="small"
                :aria-label="`Take ${row.pack} as a loadout`"
                @click="adopt(row)"
                >take it</v-btn
              >
            </td>
          </tr>
        </tbody>
      </v-table>
    </div>
    <p class="small faint">
      {{ rows.some((row) => row.unbeaten) ? '◆ nothing here is lighter and lasts longer. ' : '' }}A
      motor is changed on the Plan, with its part; runs of the old one then speak no more.
    </p>
    <ListingForm @listed="listed.push($event)" />
    <p v-for="(each, at) in listed" :key="at" class="small">
      Listed: {{ each.listing.name }}, {{ quantity(each.listing.mass_g, 'mass') }}
      <v-verb class="faint" @click="listed.splice(at, 1)"> take it off </v-verb>
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 12px;
}

.choices {
  background: transparent;
  min-width: 640px;
}

.choices th,
.choices td {
  padding: 4px 8px 4px 0 !important;
  vertical-align: top;
}

.right {
  text-align: right !important;
  white-space: nowrap;
}

th.right {
  white-space: normal;
}
</style>
