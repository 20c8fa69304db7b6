<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Surface } from '../api/client'

type Measure = keyof Surface['sections'][number]
const props = defineProps<{ surfaces: Surface[] }>()
const emit = defineEmits<{
  moved: [surface: number, section: number, to: Partial<Record<Measure, number>>]
  kept: []
}>()

const svg = ref<SVGSVGElement>()
const GAP = 60

/** The starboard half from above, nose to the left; under it the same from the side. */
const box = computed(() => {
  const sections = props.surfaces.flatMap((each) => each.sections)
  const xs = [0, ...sections.flatMap((s) => [s.x_le_mm, s.x_le_mm + s.chord_mm])]
  const deep = Math.max(120, ...sections.map((s) => s.y_mm)) + 30
  const high = Math.max(40, ...sections.map((s) => s.z_mm)) + 20
  const low = Math.max(20, ...sections.map((s) => -s.z_mm)) + 10
  const from = Math.min(...xs) - 40
  return { from, wide: Math.max(...xs) + 40 - from, deep, high, low }
})
const side = computed(() => box.value.deep + GAP + box.value.high)
const view = computed(
  () => `${box.value.from} -20 ${box.value.wide} ${side.value + box.value.low + 20}`,
)

/** A surface from above, or upright for a fin, as the points of its edge. */
function fromAbove(surface: Surface): string {
  const out = (s: Surface['sections'][number]) => s.y_mm
  const edge = surface.sections.map((s) => `${s.x_le_mm},${out(s)}`)
  const back = [...surface.sections].reverse().map((s) => `${s.x_le_mm + s.chord_mm},${out(s)}`)
  return [...edge, ...back].join(' ')
}
function fromSide(surface: Surface): string {
  const edge = surface.sections.map((s) => `${s.x_le_mm},${side.value - s.z_mm}`)
  const back = [...surface.sections]
    .reverse()
    .map((s) => `${s.x_le_mm + s.chord_mm},${side.value - s.z_mm}`)
  return [...edge, ...back].join(' ')
}

interface Handle {
  key: string
  label: string
  surface: number
  section: number
  edge: 'leading' | 'trailing'
  upright: boolean
  x: number
  y: number
}
const handles = computed<Handle[]>(() =>
  props.surfaces.flatMap((surface, at) =>
    surface.sections.flatMap((s, k) => {
      const upright = surface.role === 'fin'
      const y = upright ? side.value - s.z_mm : s.y_mm
      const of = { surface: at, section: k, upright, y }
      const name = `${surface.name}, section ${k + 1}`
      return [
        {
          ...of,
          key: `${at}-${k}-l`,
          edge: 'leading' as const,
          x: s.x_le_mm,
          label: `${name}, leading edge`,
        },
        {
          ...of,
          key: `${at}-${k}-t`,
          edge: 'trailing' as const,
          x: s.x_le_mm + s.chord_mm,
          label: `${name}, trailing edge`,
        },
      ]
    }),
  ),
)

/** Where a handle went: the leading edge carries the section along, the trailing edge its chord. */
function place(handle: Handle, x: number, y: number) {
  const section = props.surfaces[handle.surface]?.sections[handle.section]
  if (!section) return
  const across = Math.round(handle.upright ? side.value - y : y)
  const out =
    handle.section === 0 && !handle.upright
      ? {}
      : handle.upright
        ? { z_mm: across }
        : { y_mm: Math.max(0, across) }
  emit(
    'moved',
    handle.surface,
    handle.section,
    handle.edge === 'leading'
      ? { x_le_mm: Math.round(x), ...out }
      : { chord_mm: Math.max(0, Math.round(x - section.x_le_mm)), ...out },
  )
}

let held: Handle | null = null
function point(event: PointerEvent): { x: number; y: number } {
  const to = svg.value?.getScreenCTM()?.inverse()
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(to)
  return { x: at.x, y: at.y }
}
function grab(event: PointerEvent, handle: Handle) {
  held = handle
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (!held) return
  const { x, y } = point(event)
  place(held, x, y)
}
function letGo() {
  if (held) emit('kept')
  held = null
}
function key(event: KeyboardEvent, handle: Handle) {
  const step = event.shiftKey ? 10 : 1
  const by = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, -step],
    ArrowDown: [0, step],
  }[event.key]
  if (!by) return
  event.preventDefault()
  place(handle, handle.x + (by[0] ?? 0), handle.y + (by[1] ?? 0))
  emit('kept')
}
</script>

<template>
  <svg ref="svg" :viewBox="view" role="group" aria-label="The sections drawn: drag their corners">
    <line class="keel" :x1="0" :x2="box.from + box.wide - 40" y1="0" y2="0" />
    <line class="keel" :x1="0" :x2="box.from + box.wide - 40" :y1="side" :y2="side" />
    <text :x="box.from" :y="14">from above, one half</text>
    <text :x="box.from" :y="side + 14">from the side</text>
    <template v-for="surface in surfaces" :key="surface.id">
      <polygon v-if="surface.role !== 'fin'" class="surface" :points="fromAbove(surface)" />
      <polygon
        class="surface"
        :class="{ thin: surface.role !== 'fin' }"
        :points="fromSide(surface)"
      />
    </template>
    <circle
      v-for="handle in handles"
      :key="handle.key"
      class="handle"
      tabindex="0"
      role="button"
      :aria-label="handle.label"
      :cx="handle.x"
      :cy="handle.y"
      r="11"
      @pointerdown="grab($event, handle)"
      @pointermove="drag"
      @pointerup="letGo"
      @pointercancel="letGo"
      @keydown="key($event, handle)"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-height: 420px;
}

.keel {
  stroke: var(--oak);
  stroke-width: 4;
}

text {
  font-size: 15px;
  fill: var(--faint);
}

.surface {
  fill: var(--tag);
  fill-opacity: 0.8;
  stroke: var(--ink);
  stroke-width: 1.6;
  vector-effect: non-scaling-stroke;
}

.thin {
  stroke-width: 3;
}

.handle {
  fill: var(--paper);
  stroke: var(--brass);
  stroke-width: 2.5;
  cursor: grab;
  touch-action: none;
  vector-effect: non-scaling-stroke;
}

.handle:hover,
.handle:focus-visible {
  fill: var(--brass);
  outline: none;
}
</style>
