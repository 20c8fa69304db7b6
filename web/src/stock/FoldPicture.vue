<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, useId } from 'vue'
import type { Folded } from '../api/client'
import { useUnits } from '../shared/units'

const props = defineProps<{ folded: Folded; board: number }>()
const { number } = useUnits()
const clip = useId()
const sheet = ref<SVGSVGElement>()
const { width } = useElementSize(sheet)

type Corners = number[][]
const path = (corners: Corners) => `M${corners.map((at) => at.join(' ')).join('L')}`

function around(corners: Corners, room: number) {
  const xs = corners.map(([x]) => x ?? 0)
  const ys = corners.map(([, y]) => y ?? 0)
  const left = Math.min(...xs) - room
  const top = Math.min(...ys) - room
  return { left, top, wide: Math.max(...xs) + room - left, high: Math.max(...ys) + room - top }
}

const flat = computed(() => {
  const at = around(props.folded.part.rings.flat(), 8)
  return { ...at, box: `${at.left} ${at.top} ${at.wide} ${at.high}` }
})
/** A letter as large on the screen as it should be, in the drawing's millimetres. */
const letter = computed(() => (12.5 * flat.value.wide) / (width.value || 620))
const panels = computed(() =>
  props.folded.panels.map((panel) => {
    const { left, top, wide, high } = around(panel.corners, 0)
    return {
      ...panel,
      x: left + wide / 2,
      y: top + high / 2 + letter.value * 0.35,
      fits: high > letter.value * 1.25 && wide > letter.value * 0.6 * (panel.name.length + 8),
    }
  }),
)

/** Up is up in a section, down the page on a sheet. */
const section = computed(() => props.folded.section.map(([x = 0, y = 0]) => [x, -y]))
const view = computed(() => {
  const at = around(section.value, props.board * 2)
  return { ...at, box: `${at.left} ${at.top} ${at.wide} ${at.high}` }
})
const chosenScale = computed(() => Math.min(300 / view.value.wide, 160 / view.value.high))
</script>

<template>
  <figure>
    <svg
      :viewBox="view.box"
      :width="view.wide * chosenScale"
      :height="view.high * chosenScale"
      role="img"
      aria-label="The section that comes out"
    >
      <clipPath :id="clip"><path :d="`${path(section)}Z`" /></clipPath>
      <path
        class="section"
        :d="path(section)"
        :clip-path="`url(#${clip})`"
        :style="{ strokeWidth: `${2 * board}px` }"
      />
      <path class="edge" :d="path(section)" />
    </svg>
    <svg
      ref="sheet"
      :viewBox="flat.box"
      class="flat"
      role="img"
      aria-label="Unfolded, as it is cut"
    >
      <path class="part" :d="path(folded.part.rings.flat())" />
      <line
        v-for="(fold, k) in folded.folds"
        :key="`o${k}`"
        class="opened"
        :x1="fold.start[0]"
        :y1="fold.start[1]"
        :x2="fold.end[0]"
        :y2="fold.end[1]"
        :style="{ strokeWidth: `${fold.opened_mm}px` }"
      />
      <line
        v-for="(fold, k) in folded.folds"
        :key="`f${k}`"
        class="fold"
        :x1="fold.start[0]"
        :y1="fold.start[1]"
        :x2="fold.end[0]"
        :y2="fold.end[1]"
      />
      <template v-for="panel in panels" :key="panel.name">
        <text v-if="panel.fits" :x="panel.x" :y="panel.y" :font-size="letter">
          {{ panel.name }}, {{ number(panel.width_mm, 'length', 'fine') }}
        </text>
      </template>
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: grid;
  gap: 16px;
  justify-items: start;
}

svg {
  max-width: 100%;
}

.flat {
  width: 100%;
  max-width: 620px;
}

.section {
  fill: none;
  stroke: var(--tag);
  stroke-linejoin: miter;
}

.edge,
.part {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
  vector-effect: non-scaling-stroke;
}

.part {
  fill: var(--paper);
}

.opened {
  stroke: var(--tag);
}

.fold {
  stroke: var(--rust);
  stroke-width: 1.2;
  stroke-dasharray: 6 4;
  vector-effect: non-scaling-stroke;
}

text {
  text-anchor: middle;
  fill: var(--ink);
  font-family: var(--words);
}
</style>
