<script setup lang="ts">
import { METRICS } from '../say/metrics'
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import { percent } from '../shared/verdicts'

const { loadout } = useBuild()
const { number, quantity, exactLeft, units } = useUnits()

const first = computed(() => loadout.value?.headroom[0] ?? null)
/** What the two ends bear until the balance leaves its range. */
const ends = computed(() =>
  (loadout.value?.ends ?? [])
    .map((each) =>
      each.grams < 0
        ? `balance is past its range towards the ${each.at}`
        : `the ${each.at} bears ${quantity(each.grams, 'mass', 1)} until the balance breaks`,
    )
    .join('; '),
)
const digits = computed(() => exactLeft(first.value?.grams ?? 0, first.value?.sd_g))
const others = computed(() => loadout.value?.headroom.slice(1) ?? [])
</script>

<template>
  <section aria-label="Left to add">
    <template v-if="first">
      <header>
        <h2>{{ first.grams < 0 ? 'Over by' : 'Left to add' }}</h2>
        <strong class="figure">
          {{ number(Math.abs(first.grams), 'mass', digits) }} {{ units.mass.name }}
        </strong>
      </header>
      <p class="small">
        Chance that anything is left:
        <span class="figure whole">{{ percent(first.chance) }}</span>
      </p>
      <p class="small faint">
        give or take {{ quantity(2 * first.sd_g, 'mass', digits) }};
        {{
          first.grams < 0
            ? `${METRICS[first.kind].title.toLowerCase()} is broken already`
            : `then ${METRICS[first.kind].title.toLowerCase()} breaks first`
        }}<template v-for="other in others" :key="other.kind"
          >; {{ METRICS[other.kind].title.toLowerCase() }} would
          {{
            other.grams < 0
              ? `be over by ${quantity(-other.grams, 'mass', digits)}`
              : `bear ${quantity(other.grams, 'mass', digits)}`
          }}</template
        >.
      </p>
      <p v-if="ends" class="small faint">{{ ends }}</p>
    </template>
    <p v-else class="small faint">No target that weight could break: set some on the Plan.</p>
  </section>
</template>

<style scoped>
.whole {
  white-space: nowrap;
}

header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

strong {
  font-size: 22px;
}
</style>
