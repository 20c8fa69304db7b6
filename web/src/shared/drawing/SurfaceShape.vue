<script setup lang="ts">
import { computed } from 'vue'
import type { Surface } from '../../api/client'
import type { Scale } from './useScale'

/** One surface in all three views; pressed, it is the one that is worked on. */
const props = defineProps<{
  surface: Surface
  scale: Scale
  chosen: boolean
  untouched: boolean
  /** What it is filled with, where its parts have a colour. */
  fill?: string | undefined
}>()
defineEmits<{ choose: [] }>()

type Section = Surface['sections'][number]
const upright = computed(() => props.surface.role === 'fin')
const mirrored = computed(() => !upright.value || props.surface.twin)

function ring(place: (s: Section, edge: number) => string): string {
  const { sections } = props.surface
  return [
    ...sections.map((s) => place(s, s.x_le_mm)),
    ...[...sections].reverse().map((s) => place(s, s.x_le_mm + s.chord_mm)),
  ].join(' ')
}

const above = computed(() => {
  const { x, y } = props.scale
  return (mirrored.value ? [1, -1] : [1]).map((side) =>
    ring((s, at) => `${x(at)},${y(side * s.y_mm)}`),
  )
})
const fromSide = computed(() => ring((s, at) => `${props.scale.x(at)},${props.scale.z(s.z_mm)}`))
const fromFront = computed(() => {
  const { front, y } = props.scale
  return (mirrored.value ? [1, -1] : [1]).map((side) =>
    props.surface.sections.map((s) => `${front(s.z_mm)},${y(side * s.y_mm)}`).join(' '),
  )
})
</script>

<template>
  <g
    class="surface"
    :class="{ chosen, untouched, upright }"
    :style="fill && { '--fill': fill }"
    @click="$emit('choose')"
  >
    <polygon v-for="(each, at) in above" :key="at" class="plate" :points="each" />
    <polygon class="plate" :points="fromSide" />
    <polyline v-for="(each, at) in fromFront" :key="`f${at}`" class="edge" :points="each" />
  </g>
</template>

<style scoped>
.plate {
  fill: var(--fill, var(--tag));
  fill-opacity: 0.75;
  stroke: var(--tag-line);
  stroke-width: 1.4;
  stroke-linejoin: round;
}

.edge {
  fill: none;
  stroke: var(--tag-line);
  stroke-width: 2.5;
}

.upright .plate {
  stroke-width: 2.5;
}

.surface {
  cursor: pointer;
}

.chosen .plate,
.chosen .edge {
  stroke: var(--ink);
}

.untouched .plate,
.untouched .edge {
  stroke-dasharray: 6 4;
  fill-opacity: 0.3;
}
</style>
