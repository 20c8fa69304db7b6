<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { MapPoint, SpanChordMap } from '../api/client'
import { useUnits } from '../shared/units'

const props = defineProps<{ map: SpanChordMap; point: MapPoint | undefined }>()
const emit = defineEmits<{ choose: [at: { span: number; chord: number }] }>()
const { units, number } = useUnits()

const drawing = ref<SVGSVGElement>()
const { width } = useElementSize(drawing)
/** A unit of the drawing is one of the screen, so letters are as large as they are meant. */
const WIDE = computed(() => Math.max(width.value, 300))
const HIGH = computed(() => Math.min(500, Math.max(330, WIDE.value * 0.66)))
const EDGE = { left: 52, right: 112, top: 34, bottom: 46 }
/** What keeps a point from its targets, by the letter that stands for it. */
const LETTER = {
  auw: 'W',
  wing_loading: 'L',
  thrust_to_weight: 'T',
  power_loading: 'P',
  balance: 'B',
  minutes: 'M',
} as const

const half = (all: number[]) => ((all.at(-1) ?? 0) - (all[0] ?? 0)) / (all.length - 1 || 1) / 2
const cell = computed(() => ({ span: half(props.map.spans_mm), chord: half(props.map.chords_mm) }))
const x = computed(() =>
  scaleLinear(
    [
      (props.map.spans_mm[0] ?? 0) - cell.value.span,
      (props.map.spans_mm.at(-1) ?? 1) + cell.value.span,
    ],
    [EDGE.left, WIDE.value - EDGE.right],
  ),
)
const y = computed(() =>
  scaleLinear(
    [
      (props.map.chords_mm[0] ?? 0) - cell.value.chord,
      (props.map.chords_mm.at(-1) ?? 1) + cell.value.chord,
    ],
    [HIGH.value - EDGE.bottom, EDGE.top],
  ),
)
const wide = computed(() => x.value(2 * cell.value.span) - x.value(0))
const high = computed(() => y.value(0) - y.value(2 * cell.value.chord))

function letter(point: MapPoint): string {
  const worst = point.chances
    .filter((each) => each.chance !== null && each.chance < 0.5)
    .sort((a, b) => (a.chance ?? 0) - (b.chance ?? 0))[0]
  return worst ? LETTER[worst.kind] : ''
}
/** No letter stands where a line runs. */
function isCrossed({ span_mm, chord_mm }: MapPoint): boolean {
  return props.map.lines.some((line) =>
    line.is_span
      ? Math.abs(x.value(line.at_mm) - x.value(span_mm)) < 9
      : Math.abs(y.value(line.at_mm) - y.value(chord_mm)) < 9,
  )
}
const cells = computed(() =>
  props.map.points.map((point) => ({
    point,
    x: x.value(point.span_mm) - wide.value / 2,
    y: y.value(point.chord_mm) - high.value / 2,
    step: point.chance >= 0.9 ? 'sure' : point.chance >= 0.5 ? 'likely' : 'not',
    letter: wide.value > 15 && high.value > 13 && !isCrossed(point) ? letter(point) : '',
  })),
)

/** Ticks that are round in the unit that was chosen. */
const ticks = (scale: typeof x.value, many: number) => {
  const base = units.value.length.base
  const [low = 0, top = 1] = scale.domain()
  return scaleLinear([low / base, top / base], [0, 1])
    .ticks(many)
    .map((each) => each * base)
}
const spans = computed(() =>
  props.map.lines.filter((line) => line.is_span && inside(line.at_mm, x.value.domain())),
)
/** The names of chords at the side, none on another. */
const chords = computed(() => {
  const told = props.map.lines
    .filter((line) => !line.is_span && inside(line.at_mm, y.value.domain()))
    .map((line) => ({ ...line, y: y.value(line.at_mm), label: y.value(line.at_mm) + 4 }))
    .sort((a, b) => a.y - b.y)
  told.forEach((each, k) => {
    const before = told[k - 1]
    if (before && each.label - before.label < 15) each.label = before.label + 15
  })
  return told
})
const inside = (at: number, [low = 0, top = 0]: number[]) => at > low && at < top

function pressed(event: KeyboardEvent) {
  const { spans_mm: all, chords_mm: deep } = props.map
  const here = props.point
  if (!here) return
  const i = all.indexOf(here.span_mm)
  const j = deep.indexOf(here.chord_mm)
  const [di, dj] = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[
    event.key
  ] ?? [0, 0]
  const span = all[i + (di ?? 0)]
  const chord = deep[j + (dj ?? 0)]
  if (!(di || dj) || span === undefined || chord === undefined) return
  event.preventDefault()
  emit('choose', { span, chord })
}
const choose = (point: MapPoint) => emit('choose', { span: point.span_mm, chord: point.chord_mm })
</script>

<template>
  <svg
    ref="drawing"
    :height="HIGH"
    :viewBox="`0 0 ${WIDE} ${HIGH}`"
    tabindex="0"
    role="application"
    aria-roledescription="map"
    aria-label="Span against chord: arrows choose a point"
    @keydown="pressed"
  >
    <g
      v-for="each in cells"
      :key="`${each.point.span_mm} ${each.point.chord_mm}`"
      class="cell"
      :class="each.step"
      @click="choose(each.point)"
    >
      <rect :x="each.x" :y="each.y" :width="wide" :height="high" />
      <text v-if="each.letter" :x="each.x + wide / 2" :y="each.y + high / 2 + 4">
        {{ each.letter }}
      </text>
    </g>
    <g v-for="line in spans" :key="`${line.why}${line.at_mm}`" class="line">
      <line :x1="x(line.at_mm)" :x2="x(line.at_mm)" :y1="EDGE.top" :y2="HIGH - EDGE.bottom" />
      <text :x="x(line.at_mm)" :y="EDGE.top - 10" text-anchor="middle">{{ line.why }}</text>
    </g>
    <g v-for="line in chords" :key="`${line.why}${line.at_mm}`" class="line">
      <line :x1="EDGE.left" :x2="WIDE - EDGE.right" :y1="line.y" :y2="line.y" />
      <text :x="WIDE - EDGE.right + 8" :y="line.label">{{ line.why }}</text>
    </g>
    <g class="axis">
      <text
        v-for="at in ticks(x, WIDE / 90)"
        :key="`x${at}`"
        :x="x(at)"
        :y="HIGH - EDGE.bottom + 17"
        text-anchor="middle"
      >
        {{ number(at, 'length', 0) }}
      </text>
      <text
        v-for="at in ticks(y, 7)"
        :key="`y${at}`"
        :x="EDGE.left - 8"
        :y="y(at) + 4"
        text-anchor="end"
      >
        {{ number(at, 'length', 0) }}
      </text>
      <text :x="(EDGE.left + WIDE - EDGE.right) / 2" :y="HIGH - 6" text-anchor="middle">
        span, {{ units.length.name }}
      </text>
      <text :x="EDGE.left - 8" :y="EDGE.top - 10" text-anchor="end">chord</text>
    </g>
    <rect
      v-if="point"
      class="here"
      :x="x(point.span_mm) - wide / 2"
      :y="y(point.chord_mm) - high / 2"
      :width="wide"
      :height="high"
    />
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 780px;
  display: block;
}

.cell {
  cursor: pointer;
}

.cell rect {
  stroke: var(--linen);
  stroke-width: 1;
  fill: var(--paper);
}

.likely rect {
  fill: var(--tag);
}

.sure rect {
  fill: var(--tag-line);
}

text {
  font-family: var(--words);
  font-size: 12px;
  fill: var(--ink);
  pointer-events: none;
}

.cell text {
  text-anchor: middle;
  fill: var(--faint);
}

.line line {
  stroke: var(--sea);
  stroke-width: 1.2;
  stroke-dasharray: 5 4;
  pointer-events: none;
}

.here {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
  pointer-events: none;
}
</style>
