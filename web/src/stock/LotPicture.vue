<script setup lang="ts">
import { computed } from 'vue'
import type { Lot } from '../api/client'

const props = defineProps<{ lot: Lot; used: number }>()

/** A sheet to its own proportions, its used part filled; a roll, rod or bead as a line. */
const sheet = computed(() => {
  const { length_mm: length, width_mm: width } = props.lot
  if (props.lot.unit !== 'dm2' || !length || !width) return null
  const size = (length * width) / 1e4
  const scale = Math.min(68 / length, 44 / width)
  const w = length * scale
  const h = width * scale
  return {
    w,
    h,
    x: (70 - w) / 2,
    y: (46 - h) / 2,
    share: Math.min(props.used / size, 1),
    more: props.used > size ? Math.ceil(props.used / size) : 0,
  }
})
const STROKES: Record<Lot['kind'], string> = {
  adhesive: '7',
  tape: '14',
  rod: '4',
  foam: '10',
  film: '2',
  paint: '6',
  plywood: '8',
  wood: '6',
  card: '3',
  other: '6',
}
</script>

<template>
  <svg viewBox="0 0 70 46" class="picture" aria-hidden="true">
    <template v-if="sheet">
      <rect :x="sheet.x" :y="sheet.y" :width="sheet.w" :height="sheet.h" class="sheet" />
      <rect
        :x="sheet.x"
        :y="sheet.y"
        :width="sheet.w * sheet.share"
        :height="sheet.h"
        class="used"
      />
      <line
        v-if="lot.faces && lot.faces !== 'none'"
        class="face"
        :x1="sheet.x"
        :x2="sheet.x + sheet.w"
        :y1="sheet.y"
        :y2="sheet.y"
      />
      <line
        v-if="lot.faces === 'both'"
        class="face"
        :x1="sheet.x"
        :x2="sheet.x + sheet.w"
        :y1="sheet.y + sheet.h"
        :y2="sheet.y + sheet.h"
      />
      <text v-if="sheet.more" x="35" y="28" text-anchor="middle">×{{ sheet.more }}</text>
    </template>
    <path
      v-else
      d="M5 30 C 18 10, 30 40, 44 22 S 60 16, 66 20"
      class="line"
      :class="lot.kind"
      :stroke-width="STROKES[lot.kind]"
    />
  </svg>
</template>

<style scoped>
.picture {
  width: 70px;
  height: 46px;
}

.sheet {
  fill: var(--paper);
  stroke: var(--ink);
}

.used {
  fill: var(--tag-line);
  fill-opacity: 0.55;
}

.face {
  stroke: var(--ink);
  stroke-width: 3;
}

text {
  font-family: var(--figures);
  font-size: 15px;
  font-weight: 600;
  fill: var(--ink);
}

.line {
  fill: none;
  stroke: var(--tag-line);
  stroke-linecap: round;
}

.line.tape,
.line.film {
  stroke-linecap: butt;
  stroke-opacity: 0.6;
}

.line.rod {
  stroke: var(--ink);
}
</style>
