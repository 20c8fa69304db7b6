<script setup lang="ts">
import { computed } from 'vue'
import limits from '../api/limits.json'
import { MISSING } from '../say/metrics'
import { useBuild } from '../shared/useBuild'
import { fixed, plainly, useUnits } from '../shared/units'
import { useVerdicts } from '../shared/verdicts'
import { useDrive } from './useDrive'

const { drive, told, lackedBy } = useDrive()
const { assessment, loadouts, loadout, choose } = useBuild()
const { units } = useUnits()
const { value } = useVerdicts()

const rows = computed(() => {
  const flying = loadouts.value.map((each) => {
    const power = told.value?.loadouts.find((other) => other.loadout === each.id)
    const of = (kind: string) => each.answers.find((answer) => answer.kind === kind)
    const balance = assessment.value?.beam.loadouts.find((other) => other.id === each.id)
    return {
      id: each.id,
      name: each.name,
      pack: drive.value?.packs.find((pack) => pack.id === power?.pack)?.name,
      lacks: lackedBy(each.id),
      auw: of('auw'),
      ratio: of('thrust_to_weight'),
      power,
      over: power?.margins.some((margin) => margin.rung === 'over') ?? false,
      balance: of('balance')?.word ?? balance?.checked ?? '',
    }
  })
  return flying
})
</script>

<template>
  <section aria-label="Which pack">
    <h2>Which pack</h2>
    <div class="wide" tabindex="0" role="group" aria-label="A table, wider than the screen perhaps">
      <v-table class="lined">
        <thead class="faint">
          <tr>
            <th>loadout</th>
            <th class="right one">all up, {{ units.mass.name }}</th>
            <th class="right">thrust-to-weight</th>
            <th class="right">amps</th>
            <th class="right">minutes</th>
            <th>balance</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.id" :class="{ here: row.id === loadout?.id }">
            <td>
              <v-verb
                class="bare name"
                :aria-pressed="row.id === loadout?.id"
                @click="choose(row.id)"
              >
                {{ row.name
                }}<span v-if="row.power?.unbeaten" title="nothing here is lighter and lasts longer">
                  ◆</span
                >
              </v-verb>
              <div class="faint small">{{ row.pack ?? (row.lacks && MISSING[row.lacks]) }}</div>
            </td>
            <td class="figure right">
              {{ row.auw?.value == null ? '–' : value(row.auw.value, row.auw) }}
            </td>
            <td
              class="figure right"
              :class="{ wrong: row.ratio?.word === 'missed' || row.ratio?.word === 'off course' }"
            >
              {{ row.ratio?.value == null ? '–' : fixed(row.ratio.value, 2) }}
              <div v-if="row.ratio?.sd" class="faint small">±{{ fixed(2 * row.ratio.sd, 2) }}</div>
            </td>
            <td class="figure right" :class="{ wrong: row.over }">
              <template v-if="row.power"
                >{{ fixed(row.power.fresh.pack_a, 1) }}
                <div class="faint small">±{{ fixed(2 * row.power.fresh.pack_sd_a, 1) }}</div>
              </template>
              <template v-else>–</template>
            </td>
            <td class="figure right">
              <template v-if="row.power?.minutes != null"
                >{{ fixed(row.power.minutes, 1) }}
                <div class="faint small">±{{ fixed(2 * (row.power.minutes_sd ?? 0), 1) }}</div>
              </template>
              <template v-else>–</template>
            </td>
            <td class="small">{{ row.balance }}</td>
          </tr>
        </tbody>
      </v-table>
    </div>
    <p class="small faint">
      {{
        rows.some((row) => row.power?.unbeaten)
          ? '◆ nothing here is lighter and lasts longer. '
          : ''
      }}Minutes: {{ Math.round(100 * limits.drive.usable) }} % of the pack,
      {{ Math.round(100 * (drive?.full_share ?? 0)) }} % of the time at full throttle, the rest
      level at {{ plainly(limits.drive.level_over_stall) }} times the stall; they are a guess until
      flown.
    </p>
  </section>
</template>

<style scoped>
.v-table {
  min-width: 520px;
}

.one {
  white-space: nowrap;
}

.name:hover {
  text-decoration: underline;
}

.here .name {
  font-weight: 650;
}
</style>
