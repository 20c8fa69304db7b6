<script setup lang="ts">
/** Something on a drawing that is dragged by hand or moved by arrows: 44 px to a finger. */
const props = defineProps<{ x: number; y: number; label: string; svg: SVGSVGElement | undefined }>()
const emit = defineEmits<{
  to: [x: number, y: number]
  by: [right: number, up: number]
  kept: []
}>()

let held = false
function grab(event: PointerEvent) {
  held = true
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (!held) return
  const to = props.svg?.getScreenCTM()?.inverse()
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(to)
  emit('to', at.x, at.y)
}
function letGo() {
  if (held) emit('kept')
  held = false
}

function key(event: KeyboardEvent) {
  const step = event.shiftKey ? 10 : 1
  const by = (
    {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    } as Record<string, [number, number]>
  )[event.key]
  if (!by) return
  event.preventDefault()
  emit('by', ...by)
  emit('kept')
}
</script>

<template>
  <g
    class="handle"
    tabindex="0"
    role="button"
    :aria-label="label"
    :transform="`translate(${x} ${y})`"
    @pointerdown="grab"
    @pointermove="drag"
    @pointerup="letGo"
    @pointercancel="letGo"
    @keydown="key"
  >
    <circle class="halo" r="22" />
    <circle class="dot" r="6.5" />
  </g>
</template>

<style scoped>
.handle {
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

.handle:hover .dot,
.handle:focus-visible .dot {
  fill: var(--brass);
}

.handle:focus-visible .dot {
  stroke: var(--ink);
}
</style>
