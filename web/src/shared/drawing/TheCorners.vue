<script setup lang="ts">
import { computed } from 'vue'
import type { Surface } from '../../api/client'
import type { Scale } from './useScale'

type Section = Surface['sections'][number]
export type To = Partial<Record<keyof Section, number>>

/** The corners of the surface that is worked on, dragged by hand or moved by arrows. */
const props = defineProps<{ surface: Surface; scale: Scale; svg: SVGSVGElement | undefined }>()
const emit = defineEmits<{ moved: [section: number, to: To]; kept: [] }>()

interface Corner {
  key: string
  label: string
  section: number
  edge: 'leading' | 'trailing'
  x: number
  y: number
}

const upright = computed(() => props.surface.role === 'fin')
const corners = computed<Corner[]>(() =>
  props.surface.sections.flatMap((s, section) => {
    const y = upright.value ? props.scale.z(s.z_mm) : props.scale.y(s.y_mm)
    const name = `${props.surface.name}, section ${section + 1}`
    return (['leading', 'trailing'] as const).map((edge) => ({
      key: `${section}-${edge}`,
      label: `${name}, ${edge} edge`,
      section,
      edge,
      x: props.scale.x(s.x_le_mm + (edge === 'trailing' ? s.chord_mm : 0)),
      y,
    }))
  }),
)

/** Where a corner went [mm]: the leading edge takes the section along, the trailing its chord. */
function place(corner: Corner, x: number, across: number) {
  const section = props.surface.sections[corner.section]
  if (!section) return
  const out = upright.value
    ? { z_mm: Math.round(across) }
    : corner.section === 0
      ? {}
      : { y_mm: Math.max(0, Math.round(across)) }
  const along =
    corner.edge === 'leading'
      ? { x_le_mm: Math.round(x) }
      : { chord_mm: Math.max(0, Math.round(x - section.x_le_mm)) }
  emit('moved', corner.section, { ...along, ...out })
}

let held: Corner | null = null
function grab(event: PointerEvent, corner: Corner) {
  held = corner
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (!held) return
  const to = props.svg?.getScreenCTM()?.inverse()
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(to)
  const { back } = props.scale
  place(held, back.x(at.x), upright.value ? back.z(at.y) : back.y(at.y))
}
function letGo() {
  if (held) emit('kept')
  held = null
}

function key(event: KeyboardEvent, corner: Corner) {
  const step = event.shiftKey ? 10 : 1
  const by = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, step],
    ArrowDown: [0, -step],
  }[event.key]
  const section = props.surface.sections[corner.section]
  if (!by || !section) return
  event.preventDefault()
  const x = section.x_le_mm + (corner.edge === 'trailing' ? section.chord_mm : 0)
  const across = upright.value ? section.z_mm : section.y_mm
  place(corner, x + (by[0] ?? 0), across + (by[1] ?? 0))
  emit('kept')
}
</script>

<template>
  <g
    v-for="corner in corners"
    :key="corner.key"
    class="corner"
    tabindex="0"
    role="button"
    :aria-label="corner.label"
    :transform="`translate(${corner.x} ${corner.y})`"
    @pointerdown="grab($event, corner)"
    @pointermove="drag"
    @pointerup="letGo"
    @pointercancel="letGo"
    @keydown="key($event, corner)"
  >
    <circle class="halo" r="22" />
    <circle class="dot" r="6.5" />
  </g>
</template>

<style scoped>
.corner {
  cursor: grab;
  touch-action: none;
  outline: none;
}

.halo {
  fill: transparent;
}

.dot {
  fill: var(--paper);
  stroke: var(--brass);
  stroke-width: 2.5;
}

.corner:hover .dot,
.corner:focus-visible .dot {
  fill: var(--brass);
}

.corner:focus-visible .dot {
  stroke: var(--ink);
}
</style>
