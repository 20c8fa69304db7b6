<script setup lang="ts">
import { useBalanceWords } from '../say/balance'
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'

const { throttle } = useBalanceWords()
const { build, assessment, loadout, aboard, balanced: mine } = useBuild()
const { number, units } = useUnits()

const cg = computed(() => loadout.value?.cg)
/** Every mass aboard as it sits across and in height. */
const dots = computed(() => {
  const masses = new Map(assessment.value?.parts.map((each) => [each.id, each.mass_g]))
  return (build.value?.parts ?? []).flatMap((part) => {
    if (!part.station || !aboard.value.has(part.id)) return []
    const mass = Math.max(masses.get(part.id) ?? 0, 0)
    return [{ id: part.id, y: part.station.y_mm, z: part.station.z_mm, r: 2.6 * Math.sqrt(mass) }]
  })
})
const surfaces = computed(() =>
  (build.value?.surfaces ?? []).map((surface) => ({
    id: surface.id,
    points: surface.sections.map((section) => ({ y: section.y_mm, z: section.z_mm })),
    both: surface.role !== 'fin' || surface.twin,
  })),
)
const box = computed(() => {
  const points = surfaces.value.flatMap((each) => each.points)
  const half =
    Math.max(120, ...points.map((p) => p.y), ...dots.value.map((d) => Math.abs(d.y))) + 30
  const zs = [...points.map((p) => p.z), ...dots.value.map((d) => d.z), 60, -60]
  return { half, top: Math.max(...zs) + 30, low: Math.min(...zs) - 30 }
})
const view = computed(
  () =>
    `${-box.value.half} ${-box.value.top} ${2 * box.value.half} ${box.value.top - box.value.low}`,
)
const line = (points: { y: number; z: number }[], sign: number) =>
  points.map((p) => `${-sign * p.y},${-p.z}`).join(' ')
const thrust = computed(() => build.value?.thrust?.line_z_mm ?? null)
const far = (mm: number) => number(Math.abs(mm), 'length', units.value.length.name === 'mm' ? 0 : 2)

/** How far to one side or the other; `level` where that would be written as nothing. */
function apart(mm: number, more: string, less: string, level: string): string {
  return /[1-9]/.test(far(mm))
    ? `${far(mm)} ${units.value.length.name} ${mm > 0 ? more : less}`
    : level
}
</script>

<template>
  <section v-if="cg" aria-label="From the front">
    <h2>From the front <span class="faint small">across and in height, one scale</span></h2>
    <svg :viewBox="view" role="img" aria-label="Masses across and in height">
      <line class="middle" x1="0" x2="0" :y1="-box.top" :y2="-box.low" />
      <template v-for="surface in surfaces" :key="surface.id">
        <polyline class="surface" :points="line(surface.points, 1)" />
        <polyline v-if="surface.both" class="surface" :points="line(surface.points, -1)" />
      </template>
      <circle v-for="dot in dots" :key="dot.id" class="dot" :cx="-dot.y" :cy="-dot.z" :r="dot.r" />
      <line
        v-if="thrust !== null"
        class="thrust"
        :x1="-box.half * 0.3"
        :x2="box.half * 0.3"
        :y1="-thrust"
        :y2="-thrust"
      />
      <g class="cg" :transform="`translate(${-cg.y_mm} ${-cg.z_mm})`">
        <ellipse :rx="Math.max(2 * cg.y_sd_mm, 3)" :ry="Math.max(2 * cg.z_sd_mm, 3)" />
        <path d="M-22 0 H22 M0 -22 V22" />
      </g>
    </svg>
    <p class="small">
      {{
        Math.abs(cg.y_mm) < 0.5
          ? 'In the middle'
          : `${far(cg.y_mm)} ${units.length.name} to the ${cg.y_mm > 0 ? 'right' : 'left'}`
      }}<span class="faint figure"> ±{{ far(2 * cg.y_sd_mm) }}</span
      >; the CG
      {{ apart(cg.z_mm, 'above the datum', 'below the datum', 'at the height of the datum')
      }}<template v-if="mine?.thrust_arm_mm != null"
        >, the thrust line (dashed)
        {{ apart(mine.thrust_arm_mm, 'above it', 'below it', 'through it') }}:
        {{ throttle(mine.throttle_gm) }}</template
      ><template v-if="mine?.lowered_arm_mm != null"
        >; with the pack {{ far(10) }} {{ units.length.name }} lower
        {{ apart(mine.lowered_arm_mm, 'above it', 'below it', 'through it') }}:
        {{ throttle(mine.lowered_throttle_gm) }}</template
      ><template v-if="mine?.thrust_side_mm != null"
        >;
        {{
          apart(mine.thrust_side_mm, 'to the right of it', 'to the left of it', 'in line with it')
        }}:
        {{
          mine.swings ? `throttle swings the nose ${mine.swings}` : 'next to no swing with throttle'
        }}</template
      >.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

svg {
  width: 100%;
  max-height: 240px;
}

.middle {
  stroke: var(--line);
  stroke-width: 2;
}

.surface {
  fill: none;
  stroke: var(--ink);
  stroke-width: 5;
  stroke-linecap: round;
  stroke-linejoin: round;
}

.dot {
  fill: var(--brass);
  fill-opacity: 0.35;
  stroke: var(--brass);
}

.thrust {
  stroke: var(--rust);
  stroke-width: 4;
  stroke-dasharray: 12 8;
}

.cg ellipse {
  fill: var(--sea);
  fill-opacity: 0.35;
}

.cg path {
  stroke: var(--sea);
  stroke-width: 4;
}
</style>
