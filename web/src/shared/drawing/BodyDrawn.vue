<script setup lang="ts">
import { computed } from 'vue'
import type { Body } from '../../api/client'
import type { Scale } from './useScale'

/** A body in all three views; pressed, it is the one that is worked on. */
const props = defineProps<{
  body: Body
  scale: Scale
  chosen: boolean
  /** What it is filled with, where its parts have a colour. */
  fill?: string | undefined
}>()
defineEmits<{ choose: [] }>()

const sides = computed(() => (props.body.twin ? [1, -1] : [1]))
const middle = (side: number) => side * props.body.y_mm

function ring(place: (frame: Body['frames'][number], edge: number) => string): string {
  const { frames } = props.body
  return [
    ...frames.map((frame) => place(frame, 1)),
    ...[...frames].reverse().map((frame) => place(frame, -1)),
  ].join(' ')
}

const above = computed(() =>
  sides.value.map((side) =>
    ring(
      (frame, edge) =>
        `${props.scale.x(frame.x_mm)},${props.scale.y(middle(side) + (edge * frame.width_mm) / 2)}`,
    ),
  ),
)
const fromSide = computed(() =>
  ring(
    (frame, edge) =>
      `${props.scale.x(frame.x_mm)},${props.scale.z(frame.z_mm + (edge * frame.height_mm) / 2)}`,
  ),
)
const fromFront = computed(() =>
  sides.value.flatMap((side) =>
    props.body.frames.map((frame) => ({
      x: props.scale.front(frame.z_mm - frame.height_mm / 2),
      y: props.scale.y(middle(side) + frame.width_mm / 2),
      width: frame.height_mm * props.scale.perMm.value,
      height: frame.width_mm * props.scale.perMm.value,
      round: props.body.shape === 'tube' ? 1e4 : 0,
    })),
  ),
)
</script>

<template>
  <g class="body" :class="{ chosen }" :style="fill && { '--fill': fill }" @click="$emit('choose')">
    <polygon v-for="(each, at) in above" :key="at" class="plate" :points="each" />
    <polygon class="plate" :points="fromSide" />
    <rect
      v-for="(each, at) in fromFront"
      :key="`f${at}`"
      class="frame"
      :x="each.x"
      :y="each.y"
      :width="each.width"
      :height="each.height"
      :rx="each.round"
    />
  </g>
</template>

<style scoped>
.plate {
  fill: var(--fill, var(--oak));
  fill-opacity: 0.16;
  stroke: var(--oak);
  stroke-width: 1.4;
  stroke-linejoin: round;
}

.frame {
  fill: none;
  stroke: var(--oak);
  stroke-width: 1.2;
}

.body {
  cursor: pointer;
}

.chosen .plate,
.chosen .frame {
  stroke: var(--ink);
  stroke-width: 1.8;
}
</style>
