<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { ref, toRef } from 'vue'
import type { MapPoint, SpanChordMap } from '../api/client'
import { useUnits } from '../shared/units'
import { useMapScale } from './useMapScale'

const props = defineProps<{ map: SpanChordMap; point: MapPoint | undefined }>()
const emit = defineEmits<{ choose: [at: { span: number; chord: number }] }>()
const { units, number } = useUnits()

const drawing = ref<SVGSVGElement>()
const { width } = useElementSize(drawing)
const map = toRef(props, 'map')
const { EDGE, across, down, x, y, cell, cells, spans, chords, ticks } = useMapScale(map, width)

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
    :height="down"
    :viewBox="`0 0 ${across} ${down}`"
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
      <rect :x="each.x" :y="each.y" :width="cell.wide" :height="cell.high" />
      <text v-if="each.letter" :x="each.x + cell.wide / 2" :y="each.y + cell.high / 2 + 4">
        {{ each.letter }}
      </text>
    </g>
    <g v-for="line in spans" :key="`${line.why}${line.at_mm}`" class="line">
      <line :x1="x(line.at_mm)" :x2="x(line.at_mm)" :y1="EDGE.top" :y2="down - EDGE.bottom" />
      <text :x="x(line.at_mm)" :y="EDGE.top - 10" text-anchor="middle">{{ line.why }}</text>
    </g>
    <g v-for="line in chords" :key="`${line.why}${line.at_mm}`" class="line">
      <line :x1="EDGE.left" :x2="across - EDGE.right" :y1="line.y" :y2="line.y" />
      <text :x="across - EDGE.right + 8" :y="line.label">{{ line.why }}</text>
    </g>
    <g class="axis">
      <text
        v-for="at in ticks('span', across / 90)"
        :key="`x${at}`"
        :x="x(at)"
        :y="down - EDGE.bottom + 17"
        text-anchor="middle"
      >
        {{ number(at, 'length', 0) }}
      </text>
      <text
        v-for="at in ticks('chord', 7)"
        :key="`y${at}`"
        :x="EDGE.left - 8"
        :y="y(at) + 4"
        text-anchor="end"
      >
        {{ number(at, 'length', 0) }}
      </text>
      <text :x="(EDGE.left + across - EDGE.right) / 2" :y="down - 6" text-anchor="middle">
        span, {{ units.length.name }}
      </text>
      <text :x="EDGE.left - 8" :y="EDGE.top - 10" text-anchor="end">chord</text>
    </g>
    <rect
      v-if="point"
      class="here"
      :x="x(point.span_mm) - cell.wide / 2"
      :y="y(point.chord_mm) - cell.high / 2"
      :width="cell.wide"
      :height="cell.high"
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
