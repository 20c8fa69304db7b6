<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'
import { answered, api, type ForecastPoint, type TargetAnswer } from '../api/client'
import { useBuild } from './useBuild'
import { useVerdicts } from './verdicts'

const props = defineProps<{ answer: TargetAnswer }>()
const { id, query, loadout } = useBuild()
const { value, unit } = useVerdicts()

const W = 380
const H = 130

const curve = useQuery({
  queryKey: computed(() => ['forecast', id.value, loadout.value?.id, query.data.value?.revision]),
  queryFn: () =>
    answered<ForecastPoint[]>(
      api.GET('/api/v1/builds/{build_id}/forecast', {
        params: { path: { build_id: id.value }, query: { loadout: loadout.value?.id } },
      }),
    ),
})

/** The rod's own figure after each reading: grams, or where the CG is in the target's unit. */
const points = computed(() =>
  (curve.data.value ?? []).flatMap((point) => {
    const mass = props.answer.kind === 'auw'
    const at = mass ? point.auw_g : point.balance
    const sd = mass ? point.auw_sd_g : point.balance_sd
    return at === null || sd === null ? [] : [{ n: point.readings, at, sd }]
  }),
)

const frame = computed(() => {
  const limits = [props.answer.low, props.answer.high].filter((limit) => limit !== null)
  const all = [...points.value.flatMap((p) => [p.at - 2 * p.sd, p.at + 2 * p.sd]), ...limits]
  const least = Math.min(...all)
  const most = Math.max(...all)
  const room = (most - least) * 0.08 || 1
  const last = Math.max(1, points.value.at(-1)?.n ?? 1)
  return {
    x: scaleLinear([0, last], [0, W]),
    y: scaleLinear([least - room, most + room], [H, 0]),
    limits,
  }
})

const band = computed(() => {
  const { x, y } = frame.value
  const up = points.value.map((p) => `${x(p.n)},${y(p.at + 2 * p.sd)}`)
  const down = [...points.value].reverse().map((p) => `${x(p.n)},${y(p.at - 2 * p.sd)}`)
  return [...up, ...down].join(' ')
})
const line = computed(() =>
  points.value.map((p) => `${frame.value.x(p.n)},${frame.value.y(p.at)}`).join(' '),
)
const words = computed(() => {
  const first = points.value[0]
  const now = points.value.at(-1)
  if (!first || !now) return ''
  const write = (p: { at: number; sd: number }) =>
    `${value(p.at, props.answer, p.sd)} ±${value(2 * p.sd, props.answer, p.sd)}`
  return `${write(first)} before the first reading, ${write(now)} ${unit(props.answer)} after ${now.n}`
})
</script>

<template>
  <figure v-if="points.length > 1">
    <svg :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="words">
      <polygon :points="band" class="band" />
      <line
        v-for="limit in frame.limits"
        :key="limit"
        class="limit"
        x1="0"
        :x2="W"
        :y1="frame.y(limit)"
        :y2="frame.y(limit)"
      />
      <polyline :points="line" class="line" />
    </svg>
    <figcaption class="faint small">{{ words }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}

svg {
  display: block;
  width: 100%;
  border-left: 1px solid var(--ink);
  border-bottom: 1px solid var(--ink);
}

.band {
  fill: var(--sea);
  fill-opacity: 0.22;
}

.line {
  fill: none;
  stroke: var(--sea);
  stroke-width: 2;
}

.limit {
  stroke: var(--edge);
  stroke-width: 3;
}
</style>
