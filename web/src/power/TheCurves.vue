<script setup lang="ts">
import { computed, ref } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import { useDrive } from './useDrive'
import { usePoints } from './usePoints'
import SavePicture from '../shared/SavePicture.vue'

const { drive, told, mine } = useDrive()
const { build } = useBuild()
const waiting = usePoints()
const { number, units } = useUnits()

const W = 460
const H = 300
const LEFT = 44
const FOOT = 26

const packOf = (id: string) => drive.value?.packs.find((each) => each.id === id)

/** Every pack that flies, once; the chosen loadout's own is drawn last, on top. */
const curves = computed(() => {
  const seen = new Map((told.value?.loadouts ?? []).map((each) => [each.pack, each]))
  return [...seen.values()]
    .map((each) => ({ ...each, mine: each.pack === mine.value?.pack }))
    .sort((a, b) => Number(a.mine) - Number(b.mine))
})
/** What was run with this pack, and what waits to be kept as a run. */
const points = computed(() => {
  const run = (drive.value?.runs ?? []).filter((each) => each.pack === mine.value?.pack)
  const fitted = (told.value?.fits ?? []).flatMap((fit) => {
    const throttle = run.find((each) => each.id === fit.run)?.points[fit.point]?.throttle
    if (throttle === undefined || fit.quantity !== 'thrust') return []
    const key = `${fit.run} ${fit.point}`
    return [{ key, throttle, thrust: fit.read, doubted: fit.t === null, waits: false }]
  })
  if (waiting.pack.value !== mine.value?.pack) return fitted
  const fresh = waiting.points.value.flatMap((point, at) =>
    point.thrust_gf === null
      ? []
      : [
          {
            key: `waits ${at}`,
            throttle: point.throttle,
            thrust: point.thrust_gf,
            doubted: false,
            waits: true,
          },
        ],
  )
  return [...fitted, ...fresh]
})
/** What the target of thrust-to-weight asks of this loadout. */
const asked = computed(() => {
  const low = build.value?.targets.find((each) => each.kind === 'thrust_to_weight')?.low
  const gf = mine.value?.asked_gf
  return low && gf ? { ratio: low, gf } : null
})

const STEPS = [10, 20, 25, 50, 100, 200, 250, 500, 1000, 2000, 5000]
const scale = computed(() => {
  const most = Math.max(
    1,
    asked.value?.gf ?? 0,
    ...points.value.map((each) => each.thrust),
    ...(mine.value?.fresh_curve ?? []).map((each) => each.thrust_gf),
    ...curves.value.flatMap((each) =>
      each.curve.map((point) => point.thrust_gf + 2 * point.thrust_sd_gf),
    ),
  )
  const base = units.value.thrust.base
  const step = STEPS.map((each) => each * (base > 1 ? 0.1 : 1)).find(
    (each) => most / base / each <= 7,
  )
  const by = (step ?? 5000) * base
  const top = Math.ceil(most / by) * by
  return {
    x: (throttle: number) => LEFT + throttle * (W - LEFT - 12),
    y: (gf: number) => 12 + (1 - gf / top) * (H - FOOT - 12),
    ticks: Array.from({ length: Math.round(top / by) + 1 }, (_, k) => k * by),
    digits: base > 1 && by / base < 1 ? 1 : 0,
  }
})
const band = (curve: (typeof curves.value)[number]['curve']) => {
  const { x, y } = scale.value
  const up = curve.map((p) => `${x(p.throttle)},${y(p.thrust_gf + 2 * p.thrust_sd_gf)}`)
  const down = [...curve]
    .reverse()
    .map((p) => `${x(p.throttle)},${y(Math.max(p.thrust_gf - 2 * p.thrust_sd_gf, 0))}`)
  return [...up, ...down].join(' ')
}
const line = (curve: (typeof curves.value)[number]['curve']) =>
  curve.map((p) => `${scale.value.x(p.throttle)},${scale.value.y(p.thrust_gf)}`).join(' ')
const words = computed(() =>
  mine.value
    ? `Thrust against throttle with ${packOf(mine.value.pack)?.name}: ` +
      `${number(mine.value.half.thrust_gf, 'thrust')} ${units.value.thrust.name} at full throttle`
    : 'Thrust against throttle',
)
const HOW = {
  run: 'run on the stand',
  stated: 'by the thrust stated on the Plan',
  calculated: 'calculated from what is known',
  guess: 'a guess',
}
const holder = ref<HTMLElement>()
</script>

<template>
  <section aria-label="Thrust">
    <header>
      <h2>Thrust, {{ units.thrust.name }}</h2>
      <span class="faint small">against throttle, %</span>
    </header>
    <p v-if="!curves.length" class="faint">
      No loadout carries a pack of this drive yet: say below which part each pack is.
    </p>
    <figure v-else ref="holder">
      <svg :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="words">
        <g v-for="tick in scale.ticks" :key="tick">
          <line class="grid" :x1="LEFT" :x2="W - 12" :y1="scale.y(tick)" :y2="scale.y(tick)" />
          <text class="figure end" :x="LEFT - 6" :y="scale.y(tick) + 4">
            {{ number(tick, 'thrust', scale.digits) }}
          </text>
        </g>
        <text
          v-for="percent in [0, 25, 50, 75, 100]"
          :key="percent"
          class="figure"
          :x="scale.x(percent / 100)"
          :y="H - 8"
        >
          {{ percent }}
        </text>
        <g v-for="each in curves" :key="each.pack" :class="{ mine: each.mine }">
          <polyline v-if="each.mine" class="fresh" :points="line(each.fresh_curve)" />
          <polygon class="band" :points="band(each.curve)" />
          <polyline class="line" :points="line(each.curve)" />
        </g>
        <line
          v-if="asked"
          class="asked"
          :x1="LEFT"
          :x2="W - 12"
          :y1="scale.y(asked.gf)"
          :y2="scale.y(asked.gf)"
        />
        <g v-for="point in points" :key="point.key">
          <circle
            class="point"
            :class="{ doubted: point.doubted, waits: point.waits }"
            :cx="scale.x(point.throttle)"
            :cy="scale.y(point.thrust)"
            r="5"
          />
        </g>
      </svg>
      <figcaption class="small">
        <span v-for="each in [...curves].reverse()" :key="each.pack" :class="{ mine: each.mine }">
          <i aria-hidden="true" />{{ packOf(each.pack)?.name }}, half used:
          <b class="figure">{{ number(each.half.thrust_gf, 'thrust') }}</b>
          <span class="faint figure"> ±{{ number(2 * each.half.thrust_sd_gf, 'thrust') }}</span
          >, {{ HOW[each.half.known] }}
        </span>
        <span v-if="mine" class="fresher"
          ><i aria-hidden="true" />the same pack fresh, as it runs on the stand:
          <b class="figure">{{ number(mine.fresh.thrust_gf, 'thrust') }}</b></span
        >
        <span v-if="asked" class="asks"
          ><i aria-hidden="true" />{{ asked.ratio }} of the weight asks
          <b class="figure">{{ number(asked.gf, 'thrust') }}</b></span
        >
      </figcaption>
    </figure>
    <SavePicture v-if="curves.length" :of="holder" what="curves" />
  </section>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  flex-wrap: wrap;
}

figure {
  margin: 6px 0 0;
}

svg {
  display: block;
  width: 100%;
  max-height: 380px;
  overflow: visible;
}

text {
  font-size: 11px;
  fill: var(--faint);
  text-anchor: middle;
}

.end {
  text-anchor: end;
}

.grid {
  stroke: var(--line);
}

.band {
  fill: var(--brass);
  fill-opacity: 0.16;
}

.line {
  fill: none;
  stroke: var(--brass);
  stroke-width: 2;
  stroke-dasharray: 6 4;
}

.mine .band {
  fill: var(--sea);
  fill-opacity: 0.2;
}

.mine .line {
  stroke: var(--sea);
  stroke-width: 2.5;
  stroke-dasharray: none;
}

.fresh {
  fill: none;
  stroke: var(--sea);
  stroke-width: 1;
}

.asked {
  stroke: var(--oak);
  stroke-width: 2;
}

.point {
  fill: var(--sea);
  stroke: var(--paper);
  stroke-width: 1.5;
}

.point.waits {
  fill: var(--brass);
}

.point.doubted {
  fill: var(--paper);
  stroke: var(--rust);
  stroke-width: 2;
}

@media (max-width: 700px) {
  text {
    font-size: 14px;
  }
}

figcaption {
  display: grid;
  gap: 2px;
}

i {
  display: inline-block;
  width: 22px;
  margin-right: 6px;
  border-top: 2px dashed var(--brass);
  vertical-align: middle;
}

.mine i {
  border-top: 3px solid var(--sea);
}

.fresher i {
  border-top: 1px solid var(--sea);
}

.asks i {
  border-top: 2px solid var(--oak);
}
</style>
