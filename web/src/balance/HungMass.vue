<script setup lang="ts">
import { computed } from 'vue'
import { useUnits } from '../shared/units'
import type { Hanging } from './hanging'
import type { Hung } from './useHung'

/** A mass on its string: slid by hand or by arrows, where it may slide. */
const props = defineProps<{
  mass: Hung
  /** Where it is drawn: its disc, the ends of its slide, its name. */
  x: number
  r: number
  hanging: Hanging
  reach: { low: number; high: number } | null
  /** The station [mm] under a pointer. */
  toMm: (event: PointerEvent) => number
}>()
const emit = defineEmits<{ slid: [to: number]; kept: []; dropped: [] }>()
const { number, units, exactLeft } = useUnits()
/** Written on its disc where that is wide enough. */
const weighs = computed(() => number(props.mass.mass, 'mass', exactLeft(props.mass.mass)))

// The disc follows the pointer at once, the rest as soon as it is worked out.
let offset: number | null = null
function grab(event: PointerEvent) {
  if (!props.mass.slide) return
  offset = props.mass.x - props.toMm(event)
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (offset !== null) to(props.toMm(event) + offset)
}
function letGo() {
  offset = null
}
function to(x: number) {
  const { slide } = props.mass
  if (slide) emit('slid', Math.min(Math.max(x, slide.low), slide.high))
}
function key(event: KeyboardEvent) {
  const { slide, x } = props.mass
  const step = event.shiftKey ? 10 : 1
  const by = { ArrowLeft: -step, ArrowRight: step, ArrowDown: -step, ArrowUp: step }[event.key]
  if (by !== undefined) to(x + by)
  else if (event.key === 'Home' && slide) to(slide.low)
  else if (event.key === 'End' && slide) to(slide.high)
  else if (event.key === 'Enter') emit('kept')
  else if (event.key === 'Escape') emit('dropped')
  else return
  event.preventDefault()
}
</script>

<template>
  <g
    class="hung"
    :class="{ slides: mass.slide }"
    :data-hung="mass.id"
    :tabindex="mass.slide ? 0 : undefined"
    :role="mass.slide ? 'slider' : undefined"
    :aria-label="
      mass.slide ? `${mass.name}, ${number(mass.mass, 'mass')} ${units.mass.name}` : undefined
    "
    :aria-valuenow="mass.slide ? Math.round(mass.x) : undefined"
    :aria-valuemin="mass.slide ? Math.round(mass.slide.low) : undefined"
    :aria-valuemax="mass.slide ? Math.round(mass.slide.high) : undefined"
    :aria-valuetext="
      mass.slide ? `${number(mass.x, 'length')} ${units.length.name} from the nose` : undefined
    "
    @pointerdown="grab"
    @pointermove="drag"
    @pointerup="letGo"
    @pointercancel="letGo"
    @keydown="key"
  >
    <line
      v-if="hanging.leader"
      class="leader"
      :x1="hanging.leader.from"
      :x2="hanging.leader.to"
      :y1="hanging.y"
      :y2="hanging.y"
    />
    <line
      v-if="reach"
      class="reach"
      :x1="reach.low"
      :x2="reach.high"
      :y1="hanging.y"
      :y2="hanging.y"
    />
    <circle v-if="mass.slide" class="halo" :cx="x" :cy="hanging.y" r="22" />
    <circle class="disc" :cx="x" :cy="hanging.y" :r="r" />
    <path
      v-if="mass.slide"
      class="arrow"
      :d="`M${x - r - 4} ${hanging.y - 5} l-7 5 l7 5 z M${x + r + 4} ${hanging.y - 5} l7 5 l-7 5 z`"
    />
    <text v-if="r > 3.7 * weighs.length + 2" class="figure grams" :x="x" :y="hanging.y + 4">
      {{ weighs }}
    </text>
    <text class="name" :x="hanging.name.x" :y="hanging.name.y">{{ mass.name }}</text>
  </g>
</template>

<style scoped>
.reach {
  stroke: var(--brass);
  stroke-width: 3;
  opacity: 0.45;
}

.leader {
  stroke: var(--faint);
  stroke-dasharray: 1 3;
}

.halo {
  fill: transparent;
}

.disc {
  fill: var(--pan);
  stroke: var(--ink);
  stroke-width: 1.2;
}

.slides {
  cursor: ew-resize;
  touch-action: none;
}

.slides .disc {
  fill: var(--brass);
  stroke-width: 2;
}

.slides .grams {
  fill: var(--paper);
}

.slides:focus-visible {
  outline: none;
}

.slides:focus-visible .disc {
  stroke: var(--sea);
  stroke-width: 4;
}

.arrow {
  fill: var(--ink);
}

text {
  font-size: 12px;
  fill: var(--ink);
  text-anchor: middle;
}

.grams {
  font-weight: 600;
}
</style>
