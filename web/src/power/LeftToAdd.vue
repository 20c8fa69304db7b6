<script setup lang="ts">
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import { TITLES } from '../shared/verdicts'

const { loadout } = useBuild()
const { number, quantity, units } = useUnits()
const digits = computed(() => (units.value.mass.name === 'g' ? 0 : 1))

const first = computed(() => loadout.value?.headroom[0] ?? null)
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
      <p class="small faint">
        give or take {{ quantity(2 * first.sd_g, 'mass', digits) }};
        {{
          first.grams < 0
            ? `${TITLES[first.kind].toLowerCase()} is broken already`
            : `then ${TITLES[first.kind].toLowerCase()} breaks first`
        }}<template v-for="other in others" :key="other.kind"
          >; {{ TITLES[other.kind].toLowerCase() }} would
          {{
            other.grams < 0
              ? `be over by ${quantity(-other.grams, 'mass', digits)}`
              : `bear ${quantity(other.grams, 'mass', digits)}`
          }}</template
        >.
      </p>
    </template>
    <p v-else class="small faint">No target that weight could break: set some on the Plan.</p>
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--ink);
  padding-top: 14px;
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
