<script setup lang="ts">
import { computed } from 'vue'
import type { Outline } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { BEAM_Y, BODY_Y, UNDER, type BeamScale } from './useBeamScale'

/** The plane from its side, on the oak that tips about the edge of its range. */
const props = defineProps<{ scale: BeamScale; tip: { x: number; deg: number } }>()
const { build, assessment } = useBuild()

const outlines = computed(() => assessment.value?.outlines ?? [])
const nose = computed(() => props.scale.x(Math.min(0, props.scale.axis.value.from)))

/** A fin as it is, anything else as its root section: a thin lens. */
function sideOf(outline: Outline): string {
  const { x, up } = props.scale
  const [first] = outline.side
  const last = outline.side.at(-1)
  if (!first || !last) return ''
  if (outline.role === 'fin')
    return `M${outline.side.map(([at, z]) => `${x(at)} ${up(z)}`).join(' L')} Z`
  const [a, b, y] = [x(first[0]), x(last[0]), up(first[1])]
  const thick = Math.max(4, (b - a) * 0.1)
  return `M${a} ${y} Q${a + (b - a) * 0.25} ${y - 1.7 * thick} ${b} ${y} Q${a + (b - a) * 0.4} ${y + 0.5 * thick} ${a} ${y} Z`
}

const body = computed(() => {
  const { x, long } = props.scale
  const tail = x(Math.max(0, ...outlines.value.flatMap((o) => o.corners.map(([at]) => at))))
  const wing = outlines.value.find((each) => each.role === 'wing')
  const top = Math.min(Math.max(long(wing?.side[0]?.[1] ?? 0) * 0.5, 15), 40)
  const [from, y] = [nose.value, BODY_Y]
  const along = (share: number) => from + (tail - from) * share
  return `${from},${y} ${from + 34},${y - 15} ${along(0.2)},${y - top} ${along(0.5)},${y - top} ${tail},${y - 6} ${tail},${y + 4} ${along(0.45)},${y + 18} ${from + 26},${y + 16}`
})
const thrust = computed(() => {
  const z = build.value?.thrust?.line_z_mm
  return typeof z === 'number' ? props.scale.up(z) : undefined
})
const oak = computed(() => {
  const { from, to } = props.scale.axis.value
  const x = props.scale.x(from) - 20
  return { x, width: props.scale.x(to) + 20 - x }
})
</script>

<template>
  <g
    class="tilts"
    :style="{ transformOrigin: `${tip.x}px ${UNDER}px`, transform: `rotate(${tip.deg}deg)` }"
  >
    <polygon class="fuselage" :points="body" />
    <path
      v-for="outline in outlines"
      :key="`${outline.id} ${outline.is_port}`"
      class="side"
      :class="outline.role"
      :d="sideOf(outline)"
    />
    <line
      v-if="thrust !== undefined"
      class="thrust"
      :x1="nose - 26"
      :x2="nose + 40"
      :y1="thrust"
      :y2="thrust"
    />
    <rect class="oak" v-bind="oak" :y="BEAM_Y - 6" height="14" />
    <line
      v-for="tick in scale.ticks.value"
      :key="tick.text"
      class="notch"
      :x1="tick.at"
      :x2="tick.at"
      :y1="BEAM_Y - 6"
      :y2="BEAM_Y"
    />
  </g>
</template>

<style scoped>
.tilts {
  transition: transform 0.25s ease-out;
}

.fuselage,
.side {
  fill: var(--tag);
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-linejoin: round;
}

.side {
  fill: var(--tag-line);
  stroke-width: 1.4;
}

.oak {
  fill: var(--oak);
  stroke: var(--ink);
}

.notch {
  stroke: var(--oak-text);
}

.thrust {
  stroke: var(--rust);
  stroke-width: 2;
  stroke-dasharray: 6 4;
}

@media (prefers-reduced-motion: reduce) {
  .tilts {
    transition: none;
  }
}
</style>
