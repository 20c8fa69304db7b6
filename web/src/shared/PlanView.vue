<script setup lang="ts">
import { computed } from 'vue'
import type { Outline } from '../api/client'

interface Dot {
  x: number
  y: number
  mass: number
}

const props = defineProps<{
  outlines: Outline[]
  dots?: Dot[]
  cg?: { x_mm: number; y_mm: number; x_sd_mm: number; y_sd_mm: number } | null
  /** Nose and tail are left and right on a Plan, up and down on a shelf. */
  upright?: boolean
  /** Draw this many mm across, so that several planes are to one scale. */
  across?: number
}>()

const box = computed(() => {
  const corners = props.outlines.flatMap((outline) => outline.corners)
  const xs = [0, ...corners.map(([x]) => x), ...(props.dots ?? []).map((dot) => dot.x)]
  const ys = [60, -60, ...corners.map(([, y]) => y)]
  const from = Math.min(...xs) - 25
  const to = Math.max(...xs) + 25
  const half = Math.max(...ys.map(Math.abs)) + 25
  return { from, to, half }
})

const view = computed(() => {
  const { from, to, half } = box.value
  if (props.upright) return `${-half} ${from} ${2 * half} ${to - from}`
  return `${from} ${-half} ${to - from} ${2 * half}`
})

const width = computed(() =>
  props.across ? `${Math.min((2 * box.value.half * 100) / props.across, 100)}%` : '100%',
)

function point(x: number, y: number): string {
  return props.upright ? `${y},${x}` : `${x},${y}`
}

function path(outline: Outline): string {
  return outline.corners.map(([x, y]) => point(x, y)).join(' ')
}

const tail = computed(() =>
  Math.max(0, ...props.outlines.flatMap((o) => o.corners.map(([x]) => x))),
)
</script>

<template>
  <svg :viewBox="view" class="plan" :style="{ width }" role="img" aria-label="Plan view">
    <line
      class="keel"
      :x1="upright ? 0 : 0"
      :y1="0"
      :x2="upright ? 0 : tail"
      :y2="upright ? tail : 0"
    />
    <polygon
      v-for="outline in outlines"
      :key="`${outline.id} ${outline.is_port}`"
      :points="path(outline)"
      class="surface"
      :class="outline.role"
    />
    <template v-for="(dot, at) in dots ?? []" :key="at">
      <circle
        class="dot"
        :cx="upright ? dot.y : dot.x"
        :cy="upright ? dot.x : dot.y"
        :r="2 * Math.sqrt(Math.max(dot.mass, 0))"
      />
    </template>
    <g v-if="cg" class="cg" :transform="`translate(${point(cg.x_mm, cg.y_mm)})`">
      <ellipse
        :rx="upright ? 2 * cg.y_sd_mm : 2 * cg.x_sd_mm"
        :ry="upright ? 2 * cg.x_sd_mm : 2 * cg.y_sd_mm"
      />
      <path d="M-34 0 H34 M0 -34 V34" />
    </g>
  </svg>
</template>

<style scoped>
.plan {
  display: block;
  overflow: visible;
}

.keel {
  stroke: var(--oak);
  stroke-width: 5;
}

.surface {
  fill: var(--tag);
  fill-opacity: 0.8;
  stroke: var(--ink);
  stroke-width: 1.6;
  stroke-linejoin: round;
  vector-effect: non-scaling-stroke;
}

.surface.fin {
  stroke-width: 4;
}

.dot {
  fill: var(--brass);
  fill-opacity: 0.35;
  stroke: var(--brass);
  vector-effect: non-scaling-stroke;
}

.cg ellipse {
  fill: var(--sea);
  fill-opacity: 0.3;
}

.cg path {
  stroke: var(--sea);
  stroke-width: 2.5;
  vector-effect: non-scaling-stroke;
}
</style>
