<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'
import { answered, api, type Opened, type School, type SchoolKind } from '../api/client'
import { useBalanceWords } from '../say/balance'
import { useBuild } from '../shared/useBuild'
import { plainly, useUnits } from '../shared/units'

/** Every school's range on one ruler, from the leading edge; pressed, it is the target's. */
const { offered, noChord } = defineProps<{
  offered: School[]
  noChord: School | undefined
  all: (school: School) => string
}>()
const { school: says } = useBalanceWords()
const { id, assessment, loadout, send } = useBuild()
const { number, units } = useUnits()

const told = computed(() => assessment.value?.beam)
const cg = computed(() => loadout.value?.cg)
const edge = computed(() => assessment.value?.wing?.leading_edge_x_mm ?? 0)
const rows = computed(
  () => offered.length + (!told.value?.chosen && told.value?.low_mm != null ? 1 : 0),
)

/** Until a range is chosen each offers itself. */
const isAimedFor = computed(() => told.value?.low_mm != null || told.value?.high_mm != null)

const ruler = computed(() => {
  const xs = offered.flatMap((each) => [each.low_mm ?? 0, each.high_mm ?? 0])
  if (cg.value) xs.push(cg.value.x_mm)
  if (told.value?.low_mm != null) xs.push(told.value.low_mm)
  if (told.value?.neutral) xs.push(told.value.neutral.x_mm)
  const from = Math.min(...xs) - 8
  return { from, to: Math.max(...xs) + 8 }
})
const across = (x: number) =>
  `${(100 * (x - ruler.value.from)) / (ruler.value.to - ruler.value.from)}%`
/** Beyond the middle the figure ends at its line: there is no room behind it. */
const isFarAft = computed(() => !!cg.value && 2 * cg.value.x_mm > ruler.value.from + ruler.value.to)
/** Round figures of the unit that is chosen, behind the leading edge. */
const ticks = computed(() => {
  const base = units.value.length.base
  const ends = [ruler.value.from, ruler.value.to].map((each) => (each - edge.value) / base)
  const scale = scaleLinear(ends, [0, 1])
  const texts = (many: number) =>
    scale.ticks(many).map((each) => ({
      x: each * base + edge.value,
      text: plainly(each).replace('-', '−'),
    }))
  const usual = texts(5)
  // Long figures, of a canard ahead of its wing, want more room each.
  return usual.some(({ text }) => text.length > 3) ? texts(3) : usual
})

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
</script>

<template>
  <div class="ruler">
    <p v-if="noChord" class="small faint">{{ noChord.kind }}: {{ says(noChord) }}.</p>
    <div v-for="school in offered" :key="school.kind" class="row" :data-school="school.kind">
      <button
        type="button"
        class="plainly name small"
        :class="{ chosen: told?.chosen === school.kind, open: !isAimedFor }"
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
          ><span class="small" :class="{ before: isFarAft }"
            >now {{ number(cg.x_mm - edge, 'length') }}</span
          ></span
        >
        <span
          v-if="told?.neutral"
          class="np"
          :style="{ left: across(told.neutral.x_mm), height: `${28 * rows}px` }"
          title="neutral point"
        />
        <span
          v-for="tick in ticks"
          :key="tick.text"
          class="tick figure"
          :style="{ left: across(tick.x) }"
          >{{ tick.text }}</span
        >
      </span>
    </div>
  </div>
</template>

<style scoped>
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

button.name.open,
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

/* Under the figures of the ruler: no band and no line runs there. */
.now span {
  position: absolute;
  top: calc(100% + 17px);
  left: -3px;
  color: var(--sea);
  font-weight: 600;
  white-space: nowrap;
}

.now .before {
  right: 0;
  left: auto;
}

.np {
  position: absolute;
  bottom: 34px;
  border-left: 2px dotted var(--faint);
  pointer-events: none;
}
</style>
