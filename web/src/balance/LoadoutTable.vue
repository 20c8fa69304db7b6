<script setup lang="ts">
import { useVerdicts } from '../shared/verdicts'
import { KINDS, METRICS } from '../say/metrics'
import MayFly from './MayFly.vue'
import type { Point } from './useMayFly'
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'

const { build, assessment, loadouts, loadout, choose } = useBuild()
const { number, exactLeft } = useUnits()
const { value } = useVerdicts()

const told = computed(() => assessment.value?.beam)
/** What is told of any loadout, a column each; where it balances has its own. */
const kinds = computed(() =>
  KINDS.filter(
    (kind) =>
      kind !== 'balance' &&
      loadouts.value.some((each) => each.answers.some((answer) => answer.kind === kind)),
  ),
)
const rows = computed(() =>
  loadouts.value.map((each) => {
    const balance = told.value?.loadouts.find((other) => other.id === each.id)
    const of = (kind: string) => each.answers.find((answer) => answer.kind === kind)
    return {
      id: each.id,
      name: each.name,
      auw: of('auw'),
      answers: kinds.value.map((kind) => of(kind)),
      cg: each.cg,
      told: balance,
      left: each.headroom[0],
      why: (balance?.why ?? []).map((kind) => METRICS[kind].title.toLowerCase()).join(', '),
    }
  }),
)
const left = ({ grams, sd_g }: { grams: number; sd_g: number }) =>
  number(grams, 'mass', exactLeft(grams, sd_g))
const limit = computed(() => build.value?.targets.find((each) => each.kind === 'auw')?.high ?? null)

const points = computed<Point[]>(() =>
  rows.value.flatMap((row) =>
    row.cg && row.auw?.value != null
      ? [
          {
            id: row.id,
            name: row.name,
            x_mm: row.cg.x_mm,
            x_sd_mm: row.cg.x_sd_mm,
            grams: row.auw.value,
            grams_sd: row.auw.sd ?? 0,
            here: row.id === loadout.value?.id,
          },
        ]
      : [],
  ),
)
</script>

<template>
  <section aria-label="Loadouts">
    <h2>Which may fly</h2>
    <div class="both">
      <div
        class="wide"
        tabindex="0"
        role="group"
        aria-label="A table, wider than the screen perhaps"
      >
        <v-table class="lined">
          <thead class="faint">
            <tr>
              <th>loadout</th>
              <th v-for="kind in kinds" :key="kind" class="right">{{ METRICS[kind].short }}</th>
              <th class="right">balance</th>
              <th class="right">margin</th>
              <th class="right">left to add</th>
              <th>by its targets</th>
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
                  {{ row.name }}
                </v-verb>
              </td>
              <td v-for="(answer, at) in row.answers" :key="at" class="figure right">
                {{ answer?.value == null ? '–' : value(answer.value, answer) }}
              </td>
              <td class="figure right">
                {{ row.cg ? number(row.cg.x_mm, 'length') : '–' }}
              </td>
              <td class="figure right">
                {{ row.told?.margin == null ? '–' : `${fixed(100 * row.told.margin, 0)} %` }}
              </td>
              <td class="figure right" :class="{ wrong: (row.left?.grams ?? 0) < 0 }">
                {{ row.left ? left(row.left) : '–' }}
              </td>
              <td :class="{ wrong: row.told?.flies === 'may not fly' }">
                {{ row.told?.flies }}<span v-if="row.why" class="faint small">: {{ row.why }}</span>
              </td>
            </tr>
          </tbody>
        </v-table>
      </div>
      <MayFly
        v-if="points.length"
        :points="points"
        :low="told?.low_mm ?? null"
        :high="told?.high_mm ?? null"
        :limit="limit"
      />
    </div>
  </section>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}

.v-table {
  min-width: 620px;
}

.name:hover {
  text-decoration: underline;
}

.here .name {
  font-weight: 650;
}
</style>
