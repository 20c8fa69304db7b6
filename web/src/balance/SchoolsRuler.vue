<script setup lang="ts">
import { useBalanceWords } from '../say/balance'
import { computed } from 'vue'
import { answered, api, type Opened, type School, type SchoolKind } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import TheseWords from '../shared/TheseWords.vue'

const { throttle, school: says } = useBalanceWords()

const { id, build, assessment, loadout, balanced: mine, send, change } = useBuild()
const { number, units } = useUnits()

const told = computed(() => assessment.value?.beam)
const wing = computed(() => assessment.value?.wing)
const cg = computed(() => loadout.value?.cg)
const edge = computed(() => wing.value?.leading_edge_x_mm ?? 0)

const offered = computed(() => (told.value?.schools ?? []).filter((each) => each.low_mm !== null))
const silent = computed(() => (told.value?.schools ?? []).filter((each) => each.low_mm === null))

const noChord = computed(() => silent.value.find((each) => each.kind === 'chord rule'))
const rows = computed(
  () => offered.value.length + (!told.value?.chosen && told.value?.low_mm != null ? 1 : 0),
)

const ruler = computed(() => {
  const xs = offered.value.flatMap((each) => [each.low_mm ?? 0, each.high_mm ?? 0])
  if (cg.value) xs.push(cg.value.x_mm)
  if (told.value?.low_mm != null) xs.push(told.value.low_mm)
  if (told.value?.neutral) xs.push(told.value.neutral.x_mm)
  const from = Math.min(...xs) - 8
  return { from, to: Math.max(...xs) + 8 }
})
const across = (x: number) =>
  `${(100 * (x - ruler.value.from)) / (ruler.value.to - ruler.value.from)}%`
const ticks = computed(() => {
  const { from, to } = ruler.value
  const step = [5, 10, 20, 40, 50, 100, 200].find((each) => (to - from) / each <= 5) ?? 500
  const first = Math.ceil((from - edge.value) / step) * step
  const many = Math.floor((to - edge.value - first) / step) + 1
  return Array.from({ length: Math.max(many, 0) }, (_, k) => first + k * step)
})
const all = (school: School) => {
  const of = (x: number) => number(x, 'length')
  const [low, high] = [school.low_mm ?? 0, school.high_mm ?? 0]
  return `${of(low - edge.value)} to ${of(high - edge.value)} ${units.value.length.name} behind the leading edge, ${of(low)} to ${of(high)} from the nose, ${fixed(school.low_percent ?? 0, 0)} to ${fixed(school.high_percent ?? 0, 0)} % MAC`
}

function choose(school: SchoolKind) {
  void send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/balance-target', {
        params: { path: { build_id: id.value }, header },
        body: { school },
      }),
    ),
  )
}
const target = computed(() => build.value?.targets.find((each) => each.kind === 'balance'))
</script>

<template>
  <section aria-label="Where it belongs">
    <h2>
      Where it belongs
      <span class="faint small">{{ units.length.name }} behind the leading edge</span>
    </h2>
    <p v-if="!wing" class="faint">Draw the wing on the Plan, and every school draws its range.</p>
    <template v-else>
      <div class="ruler">
        <p v-if="noChord" class="small faint">{{ noChord.kind }}: {{ says(noChord) }}.</p>
        <div v-for="school in offered" :key="school.kind" class="row" :data-school="school.kind">
          <button
            type="button"
            class="plainly name small"
            :class="{ chosen: told?.chosen === school.kind }"
            :aria-pressed="told?.chosen === school.kind"
            :title="`Take it as the target: ${all(school)}`"
            @click="choose(school.kind)"
          >
            {{ school.kind }}<span v-if="school.unsafe" class="wrong"> unsafe here</span>
          </button>
          <span class="line">
            <span
              class="band"
              :class="{ chosen: told?.chosen === school.kind }"
              :style="{
                left: across(school.low_mm!),
                right: `calc(100% - ${across(school.high_mm!)})`,
              }"
            />
          </span>
        </div>
        <div v-if="!told?.chosen && told?.low_mm != null" class="row">
          <span class="name small chosen">your own range</span>
          <span class="line">
            <span
              class="band chosen"
              :style="{
                left: across(told.low_mm),
                right: `calc(100% - ${across(told.high_mm ?? ruler.to)})`,
              }"
            />
          </span>
        </div>
        <div class="row">
          <span />
          <span class="scale">
            <span v-if="cg" class="now" :style="{ left: across(cg.x_mm), height: `${28 * rows}px` }"
              ><span class="small">now {{ number(cg.x_mm - edge, 'length') }}</span></span
            >
            <span
              v-if="told?.neutral"
              class="np"
              :style="{ left: across(told.neutral.x_mm), height: `${28 * rows}px` }"
              title="neutral point"
            />
            <span
              v-for="tick in ticks"
              :key="tick"
              class="tick figure"
              :style="{ left: across(tick + edge) }"
              >{{ number(tick, 'length') }}</span
            >
          </span>
        </div>
      </div>
      <p class="small">
        <template v-if="told?.chosen">The {{ told.chosen }} is chosen. </template
        ><template v-else-if="target"
          >Your own range: {{ target.source || 'no reason noted' }}.
        </template>
        <template v-if="mine?.margin != null"
          >The margin to the neutral point is
          <span class="figure">{{ fixed(100 * mine.margin, 0) }}</span>
          <span class="faint figure"> ±{{ fixed(200 * (mine.margin_sd ?? 0), 0) }}</span> %
          now.</template
        >
      </p>
      <p v-for="quarrel in told?.quarrels ?? []" :key="quarrel.safer + quarrel.other" class="small">
        The {{ quarrel.safer }} and the {{ quarrel.other }} lie
        {{ number(quarrel.apart_mm, 'length') }} {{ units.length.name }} apart: for a first flight
        the forward one, the {{ quarrel.safer }}.
      </p>
      <TheseWords :of="['school', 'neutral point', 'mean aerodynamic chord']" />
      <details class="small">
        <summary>What each says, and what is left out</summary>
        <p v-for="school in offered" :key="school.kind">
          <strong>{{ school.kind }}</strong>: {{ says(school) }}. {{ all(school) }}.
        </p>
        <p v-for="school in silent" :key="school.kind" class="faint">
          <strong>{{ school.kind }}</strong>: {{ says(school) }}.
        </p>
        <p class="faint">
          The neutral point is of the lifting surfaces alone, as thin plates: body, propeller and
          low Reynolds numbers are left out; take it to ±3 % of the mean chord.
        </p>
      </details>
      <p class="small">
        <label
          >the plan's mark
          <QuantityCell
            :value="build?.plan_mark?.x_mm ?? null"
            kind="station"
            :unit="units.length.name"
            :base="units.length.base"
            optional
            label="The plan's mark, from the nose"
            @kept="change({ plan_mark: $event === null ? null : { x_mm: $event } })"
          />
          {{ units.length.name }} from the nose</label
        >
      </p>
      <p v-if="mine?.throttle_gm != null" class="small">{{ throttle(mine.throttle_gm) }}.</p>
      <p v-if="mine?.light_side" class="small wrong">
        The {{ mine.light_side }} wing is light: the CG lies
        {{ number(Math.abs(mine.sideways_mm ?? 0), 'length', 1) }} {{ units.length.name }} off the
        middle.
      </p>
    </template>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

.row {
  display: grid;
  grid-template-columns: 108px minmax(0, 1fr);
  gap: 10px;
  min-height: 28px;
  align-items: center;
}

.name {
  text-align: left;
  line-height: 1.15;
}

.name.chosen {
  font-weight: 650;
}

button.name:hover {
  text-decoration: underline;
}

.line {
  position: relative;
  height: 14px;
  background: linear-gradient(var(--line), var(--line)) center / 100% 1px no-repeat;
}

.band {
  position: absolute;
  top: 0;
  bottom: 0;
  min-width: 3px;
  background: var(--allowed);
}

.band.chosen {
  background: var(--oak);
}

.scale {
  position: relative;
  height: 34px;
  border-top: 1px solid var(--ink);
}

.tick {
  position: absolute;
  top: 4px;
  font-size: 12px;
  color: var(--faint);
  transform: translateX(-50%);
}

.now {
  position: absolute;
  bottom: 34px;
  width: 0;
  border-left: 3px solid var(--sea);
  margin-left: -1px;
  pointer-events: none;
}

.now span {
  position: absolute;
  bottom: -2px;
  left: 5px;
  color: var(--sea);
  font-weight: 600;
  white-space: nowrap;
}

.np {
  position: absolute;
  bottom: 34px;
  border-left: 2px dotted var(--faint);
  pointer-events: none;
}

p :deep(.cell) {
  width: 74px;
}
</style>
