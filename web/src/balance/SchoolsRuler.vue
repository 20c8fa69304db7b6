<script setup lang="ts">
import { useBalanceWords } from '../say/balance'
import { computed } from 'vue'
import type { School } from '../api/client'
import SchoolBands from './SchoolBands.vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import TheseWords from '../shared/TheseWords.vue'

const { throttle, school: says } = useBalanceWords()

const { build, assessment, balanced: mine, change } = useBuild()
const { number, units } = useUnits()

const told = computed(() => assessment.value?.beam)
const wing = computed(() => assessment.value?.wing)
const edge = computed(() => wing.value?.leading_edge_x_mm ?? 0)

const offered = computed(() => (told.value?.schools ?? []).filter((each) => each.low_mm !== null))
const silent = computed(() => (told.value?.schools ?? []).filter((each) => each.low_mm === null))

const noChord = computed(() => silent.value.find((each) => each.kind === 'chord rule'))
const all = (school: School) => {
  const of = (x: number) => number(x, 'length')
  const [low, high] = [school.low_mm ?? 0, school.high_mm ?? 0]
  const from =
    high < edge.value
      ? `${of(edge.value - low)} to ${of(edge.value - high)} ${units.value.length.name} ahead of`
      : `${of(low - edge.value)} to ${of(high - edge.value)} ${units.value.length.name} behind`
  return `${from} the leading edge, ${of(low)} to ${of(high)} from the nose, ${fixed(school.low_percent ?? 0, 0)} to ${fixed(school.high_percent ?? 0, 0)} % MAC`
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
      <SchoolBands :offered="offered" :no-chord="noChord" :all="all" />
      <p class="small">
        <template v-if="told?.chosen">The {{ told.chosen }} is chosen. </template
        ><template v-else-if="target"
          >Your own range: {{ target.source || 'no reason noted' }}.
        </template>
        <template v-else-if="offered.length"
          ><strong>Nothing is aimed for yet</strong>: press a range's name, and it is the target.
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
            @kept="change(() => ({ plan_mark: $event === null ? null : { x_mm: $event } }))"
          />
          {{ units.length.name }} from the nose</label
        >
      </p>
      <p v-if="mine?.throttle_gm != null" class="small">{{ throttle(mine.throttle_gm) }}.</p>
      <p v-if="mine?.light_side" class="small wrong">
        The {{ mine.light_side }} wing is light: the CG lies
        {{ number(Math.abs(mine.sideways_mm ?? 0), 'length', 'fine') }} {{ units.length.name }} off
        the middle.
      </p>
    </template>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

p :deep(.cell) {
  width: 74px;
}
</style>
