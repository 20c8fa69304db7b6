<script setup lang="ts">
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import { TITLES } from '../shared/verdicts'

const { build, assessment, loadouts, loadout, choose } = useBuild()
const { number, units } = useUnits()

const told = computed(() => assessment.value?.beam)
const rows = computed(() =>
  loadouts.value.map((each) => {
    const balance = told.value?.loadouts.find((other) => other.id === each.id)
    const of = (kind: string) => each.answers.find((answer) => answer.kind === kind)
    return {
      id: each.id,
      name: each.name,
      auw: of('auw'),
      loading: of('wing_loading'),
      thrust: of('thrust_to_weight'),
      balance: of('balance'),
      cg: each.cg,
      told: balance,
      left: each.headroom[0],
      why: (balance?.why ?? []).map((kind) => TITLES[kind].toLowerCase()).join(', '),
    }
  }),
)
const limit = computed(() => build.value?.targets.find((each) => each.kind === 'auw')?.high ?? null)

// Weight against CG, with the range and the limit.
const WIDTH = 380
const HEIGHT = 190
const box = computed(() => {
  const xs = rows.value.flatMap((row) =>
    row.cg ? [row.cg.x_mm - 2 * row.cg.x_sd_mm, row.cg.x_mm + 2 * row.cg.x_sd_mm] : [],
  )
  if (told.value?.low_mm != null) xs.push(told.value.low_mm)
  if (told.value?.high_mm != null) xs.push(told.value.high_mm)
  const ys = rows.value.flatMap((row) =>
    row.auw?.value == null
      ? []
      : [row.auw.value - 2 * (row.auw.sd ?? 0), row.auw.value + 2 * (row.auw.sd ?? 0)],
  )
  if (limit.value !== null) ys.push(limit.value)
  const pad = (values: number[], by: number) => ({
    from: Math.min(...values) - by,
    to: Math.max(...values) + by,
  })
  return xs.length && ys.length ? { x: pad(xs, 4), y: pad(ys, 10) } : null
})
const px = (x: number) =>
  box.value ? 46 + ((WIDTH - 60) * (x - box.value.x.from)) / (box.value.x.to - box.value.x.from) : 0
const py = (y: number) =>
  box.value
    ? HEIGHT - 28 - ((HEIGHT - 44) * (y - box.value.y.from)) / (box.value.y.to - box.value.y.from)
    : 0
</script>

<template>
  <section aria-label="Loadouts">
    <h2>Which may fly</h2>
    <div class="both">
      <div class="wide">
        <table class="lined">
          <thead class="faint">
            <tr>
              <th>loadout</th>
              <th class="right">all up</th>
              <th class="right">loading</th>
              <th class="right">thrust</th>
              <th class="right">balance</th>
              <th class="right">margin</th>
              <th class="right">left to add</th>
              <th>by its targets</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.id" :class="{ here: row.id === loadout?.id }">
              <td>
                <button
                  type="button"
                  class="plainly name"
                  :aria-pressed="row.id === loadout?.id"
                  @click="choose(row.id)"
                >
                  {{ row.name }}
                </button>
              </td>
              <td class="figure right">
                {{ row.auw?.value == null ? '–' : number(row.auw.value, 'mass', 0) }}
              </td>
              <td class="figure right">
                {{ row.loading?.value == null ? '–' : number(row.loading.value, 'loading') }}
              </td>
              <td class="figure right">
                {{ row.thrust?.value == null ? '–' : fixed(row.thrust.value, 2) }}
              </td>
              <td class="figure right">
                {{ row.cg ? number(row.cg.x_mm, 'length') : '–' }}
              </td>
              <td class="figure right">
                {{ row.told?.margin == null ? '–' : `${fixed(100 * row.told.margin, 0)} %` }}
              </td>
              <td class="figure right" :class="{ wrong: (row.left?.grams ?? 0) < 0 }">
                {{
                  row.left ? number(row.left.grams, 'mass', units.mass.name === 'g' ? 0 : 1) : '–'
                }}
              </td>
              <td :class="{ wrong: row.told?.flies === 'may not fly' }">
                {{ row.told?.flies }}<span v-if="row.why" class="faint small">: {{ row.why }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <figure v-if="box">
        <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" aria-label="Weight against balance">
          <rect
            v-if="told?.low_mm != null && told.high_mm != null"
            class="range"
            :x="px(told.low_mm)"
            :width="px(told.high_mm) - px(told.low_mm)"
            :y="limit === null ? 10 : Math.max(py(limit), 10)"
            :height="HEIGHT - 28 - (limit === null ? 10 : Math.max(py(limit), 10))"
          />
          <template v-if="limit !== null">
            <line class="limit" x1="46" :x2="WIDTH - 14" :y1="py(limit)" :y2="py(limit)" />
            <text class="figure start" x="50" :y="py(limit) - 4">
              limit {{ number(limit, 'mass', 0) }}
            </text>
          </template>
          <g
            v-for="row in rows.filter((each) => each.cg && each.auw?.value != null)"
            :key="row.id"
            class="point"
            :class="{ here: row.id === loadout?.id }"
          >
            <ellipse
              :cx="px(row.cg!.x_mm)"
              :cy="py(row.auw!.value!)"
              :rx="Math.abs(px(row.cg!.x_mm + 2 * row.cg!.x_sd_mm) - px(row.cg!.x_mm))"
              :ry="Math.abs(py(row.auw!.value! + 2 * (row.auw!.sd ?? 0)) - py(row.auw!.value!))"
            />
            <circle :cx="px(row.cg!.x_mm)" :cy="py(row.auw!.value!)" r="4" />
            <text class="start" :x="px(row.cg!.x_mm) + 7" :y="py(row.auw!.value!) + 4">
              {{ row.name }}
            </text>
          </g>
          <line class="frame" x1="46" :x2="WIDTH - 14" :y1="HEIGHT - 28" :y2="HEIGHT - 28" />
          <line class="frame" x1="46" x2="46" y1="10" :y2="HEIGHT - 28" />
          <text class="figure" :x="(WIDTH + 46) / 2" :y="HEIGHT - 8">
            CG, {{ units.length.name }} from the nose
          </text>
          <text v-if="told?.low_mm != null" class="figure" :x="px(told.low_mm)" :y="HEIGHT - 16">
            {{ number(told.low_mm, 'length') }}
          </text>
          <text v-if="told?.high_mm != null" class="figure" :x="px(told.high_mm)" :y="HEIGHT - 16">
            {{ number(told.high_mm, 'length') }}
          </text>
        </svg>
      </figure>
    </div>
  </section>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}

table {
  min-width: 620px;
}

.name:hover {
  text-decoration: underline;
}

.here .name {
  font-weight: 650;
}

figure {
  margin: 0;
  max-width: 620px;
}

.range {
  fill: var(--allowed);
  fill-opacity: 0.7;
}

.limit {
  stroke: var(--oak);
  stroke-width: 2;
}

.frame {
  stroke: var(--ink);
}

text {
  font-size: 10px;
  fill: var(--faint);
  text-anchor: middle;
}

.start {
  text-anchor: start;
}

.point ellipse {
  fill: var(--sea);
  fill-opacity: 0.12;
}

.point circle {
  fill: var(--sea);
}

.point.here text {
  fill: var(--ink);
  font-weight: 650;
}
</style>
