<script setup lang="ts">
import { useBalanceWords } from '../say/balance'
import { useWeighNext } from '../say/weighNext'
import { METRICS, MISSING } from '../say/metrics'
import { computed } from 'vue'
import type { TargetAnswer } from '../api/client'
import TheCurve from './TheCurve.vue'
import TheMark from './TheMark.vue'
import { useBuild } from './useBuild'
import { fixed, useUnits } from './units'
import { percent, useVerdicts } from './verdicts'
import TheseWords from './TheseWords.vue'
const { done } = useBalanceWords()
const { what } = useWeighNext()

const props = defineProps<{ answer: TargetAnswer; limit: string }>()
const { build, assessment, loadout, nameOf } = useBuild()
const { number, quantity, units, inProportion } = useUnits()
const { mend, doubting, unchecked: thin, value, unit } = useVerdicts()

const WORDS = {
  guess: 'guessed',
  listed: 'listed or calculated',
  difference: 'by difference',
  weighed: 'weighed',
}
const behind = computed(() => loadout.value?.behind)
const total = computed(() =>
  (behind.value?.makeup ?? []).reduce((sum, part) => sum + part.mass_g, 0),
)
const isMass = computed(() => props.answer.kind === 'auw' || props.answer.kind === 'wing_loading')
const sources = computed(() =>
  props.answer.kind === 'balance'
    ? (behind.value?.balance_sources ?? [])
    : isMass.value
      ? (behind.value?.auw_sources ?? [])
      : [],
)
const next = computed(() =>
  (assessment.value?.weigh_next ?? []).filter((each) => each.goal === props.answer.kind),
)
const unchecked = computed(() =>
  props.answer.kind === 'balance'
    ? assessment.value?.unchecked.find((each) => each.loadout === loadout.value?.id)
    : undefined,
)
const lessons = computed(() =>
  (assessment.value?.lessons ?? []).map((each) => ({
    ...each,
    name: build.value?.lots.find((lot) => lot.id === each.lot)?.name ?? each.lot,
  })),
)
const habits = computed(() => (isMass.value ? (assessment.value?.habits ?? []) : []))
/** How many grams this target bears yet, or what the two ends do. */
const left = computed(() => loadout.value?.headroom.find((each) => each.kind === props.answer.kind))
const ends = computed(() => (props.answer.kind === 'balance' ? (loadout.value?.ends ?? []) : []))
const share = (of: number) => `${Math.round(100 * Math.max(of, 0))} %`
</script>

<template>
  <v-sheet class="inside">
    <h3>{{ METRICS[answer.kind].title }}: {{ limit }}</h3>
    <p v-if="answer.source" class="faint">{{ answer.source }}</p>
    <p v-if="answer.probability !== null">
      Chance of meeting it: {{ percent(answer.probability) }}
    </p>
    <p v-if="doubting(answer)" class="wrong">
      {{ value(answer.value ?? 0, answer) }} {{ unit(answer) }}, {{ doubting(answer) }}. See the
      till roll on the Bench.
    </p>
    <p v-if="thin(answer)" class="wrong">
      What is in hand is {{ thin(answer) }}. 100 ml of water weigh {{ quantity(100, 'mass') }}.
    </p>
    <p v-if="unchecked" class="wrong">
      Not checked on the fingertips since: {{ done(unchecked.since) }}.
    </p>
    <p v-if="answer.missing === 'motor'">It is thrown: it has no motor, and needs no thrust.</p>
    <p v-else-if="answer.missing">To tell it: {{ MISSING[answer.missing] }}.</p>
    <p v-if="left">
      {{ left.grams < 0 ? 'Over by' : 'Left to add' }}
      <strong class="figure">{{ quantity(Math.abs(left.grams), 'mass') }}</strong>
      <span class="faint"> ±{{ number(2 * left.sd_g, 'mass') }}</span
      >{{ left.grams < 0 ? '' : ' until it breaks' }}, with a chance of
      {{ percent(left.chance) }} that anything is left.
    </p>
    <p v-for="each in ends" :key="each.at ?? ''" class="faint">
      {{
        each.grams < 0
          ? `Past its range towards the ${each.at}.`
          : `The ${each.at} bears ${quantity(each.grams, 'mass')} more.`
      }}
    </p>
    <p v-for="each in answer.mends" :key="each.by">Would bring it back: {{ mend(each, nameOf) }}</p>
    <TheCurve v-if="answer.kind === 'auw' || answer.kind === 'balance'" :answer="answer" />
    <template v-if="isMass && behind?.makeup.length">
      <h4>Made of</h4>
      <ul>
        <li v-for="part in behind.makeup" :key="part.mark">
          <TheMark :mark="part.mark" />
          <span>{{ WORDS[part.mark] }}</span>
          <span class="measure" aria-hidden="true"
            ><span :style="{ width: `${(100 * part.mass_g) / total}%` }"
          /></span>
          <span class="figure"
            >{{ number(part.mass_g, 'mass', inProportion(total)) }} {{ units.mass.name }}</span
          >
          <span class="faint small">{{ share(part.doubt_share) }} of the doubt</span>
        </li>
      </ul>
    </template>
    <template v-if="sources.length">
      <h4>Where its doubt comes from</h4>
      <p>
        <template v-for="(source, at) in sources" :key="source.part"
          ><template v-if="at">, </template>{{ nameOf(source.part) }}
          <span class="faint">{{ share(source.share) }}</span></template
        >
      </p>
    </template>
    <p v-if="next[0]">
      Weighing <strong>{{ what(next[0]) }}</strong> would take away {{ share(next[0].share) }} of
      it.
    </p>
    <p v-for="habit in habits" :key="habit.pedigree">
      Your {{ habit.pedigree === 'guess' ? 'guesses' : 'listings' }} run
      <strong class="figure">{{ fixed(habit.factor, 2) }}</strong> times their figure<template
        v-if="habit.is_wide"
        >, and lie {{ fixed(habit.width, 1) }} times as far off as usual</template
      >; the {{ habit.left }} not yet weighed were moved by {{ number(habit.moved_g, 'mass') }}
      {{ units.mass.name }}.
    </p>
    <p v-for="lesson in lessons" :key="lesson.lot">
      {{ lesson.name }} runs <strong class="figure">{{ fixed(lesson.factor, 1) }}</strong> times its
      figure.
    </p>
    <TheseWords :of="['forecast', 'doubt', 'still to come']" />
  </v-sheet>
</template>

<style scoped>
.inside {
  padding: 12px 16px;
  display: grid;
  gap: 6px;
  width: 420px;
  max-width: 94vw;
  max-height: 78vh;
  overflow-y: auto;
}

h4 {
  margin: 4px 0 0;
  font-size: 13px;
  font-weight: 650;
}

li {
  display: grid;
  grid-template-columns: 18px 136px 60px 58px minmax(0, 1fr);
  gap: 8px;
  align-items: center;
  font-size: 14px;
}

li :deep(.mark) {
  width: 15px;
}

li .figure {
  text-align: right;
}

.measure {
  height: 8px;
  background: var(--line);
}

.measure span {
  display: block;
  height: 100%;
  background: var(--sea);
}

@media (max-width: 700px) {
  li {
    grid-template-columns: 20px minmax(0, 1fr) auto;
  }

  .measure {
    display: none;
  }

  li .small {
    grid-column: 2 / -1;
  }
}
</style>
