<script setup lang="ts">
import { METRICS } from '../say/metrics'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answered, api, type Cost, type OneMore } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import { percent } from '../shared/verdicts'

const { id, revision, build, loadout } = useBuild()
const { number, quantity, units } = useUnits()

/** Nothing is asked until it is said how much more. */
const grams = ref<number | null>(null)
const wing = ref<number | null>(null)
const isAsked = computed(() => grams.value !== null || wing.value !== null)
const asked = computed(() => ({
  grams: grams.value ?? 0,
  wing_dm2: wing.value ?? 0,
  ...(build.value?.loadouts.length && loadout.value ? { loadout: loadout.value.id } : {}),
}))
const query = useQuery({
  queryKey: ['one-more', id, revision, asked],
  enabled: isAsked,
  placeholderData: (before: OneMore | undefined) => before,
  queryFn: () =>
    answered<OneMore>(
      api.GET('/api/v1/builds/{build_id}/one-more', {
        params: { path: { build_id: id.value }, query: asked.value },
      }),
    ),
})
const shortly = (value: number | null, digits: number) =>
  value === null ? null : fixed(value, digits)
const rows = computed(() => {
  const { now, then } = query.data.value ?? {}
  if (!isAsked.value || !now || !then) return []
  const row = (name: string, of: (cost: Cost) => string | null) => ({
    name,
    now: of(now) ?? '–',
    then: of(then) ?? '–',
  })
  return [
    row('loading', (each) =>
      each.wing_loading === null ? null : number(each.wing_loading, 'loading'),
    ),
    row('thrust-to-weight', (each) => shortly(each.thrust_to_weight, 2)),
    row('minutes', (each) => shortly(each.minutes, 1)),
  ]
})
const first = computed(() => (isAsked.value && query.data.value?.then.headroom[0]) || null)
</script>

<template>
  <section aria-label="One more">
    <h2>What would it cost</h2>
    <p class="small asks">
      <QuantityCell
        :value="grams"
        kind="mass"
        label="So much more aboard"
        :least="0"
        :most="5000"
        :unit="units.mass.name"
        :base="units.mass.base"
        :digits="1"
        optional
        @kept="(more) => (grams = more)"
      />
      {{ units.mass.name }} more, and
      <QuantityCell
        :value="wing"
        kind="area"
        label="So much more wing"
        :least="0"
        :most="500"
        :unit="units.area.name"
        :base="units.area.base"
        :digits="1"
        optional
        @kept="(more) => (wing = more)"
      />
      {{ units.area.name }} of wing
    </p>
    <dl>
      <template v-for="row in rows" :key="row.name">
        <dt class="faint small">{{ row.name }}</dt>
        <dd class="figure">{{ row.now }} <span class="faint">→</span> {{ row.then }}</dd>
      </template>
    </dl>
    <p v-if="first" class="small" :class="{ wrong: first.grams < 0 }">
      {{
        first.grams < 0
          ? `${METRICS[first.kind].title.toLowerCase()} breaks by ${quantity(-first.grams, 'mass')}`
          : `${quantity(first.grams, 'mass')} left then`
      }}, {{ percent(first.chance) }} that it holds
    </p>
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--ink);
  padding-top: 14px;
  display: grid;
  gap: 6px;
}

.asks :deep(.cell) {
  width: 60px;
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
}

dd {
  text-align: right;
}
</style>
