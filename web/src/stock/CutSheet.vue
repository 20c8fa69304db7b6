<script setup lang="ts">
import { computed } from 'vue'
import type { CutPiece, CutPlan } from '../api/client'

const props = defineProps<{ plan: CutPlan; number: number; lit: string | null; scale: number }>()
const emit = defineEmits<{ look: [part: string | null] }>()

const pieces = computed(() => props.plan.pieces.filter((each) => each.sheet === props.number))

const path = (piece: CutPiece) =>
  piece.rings.map((ring) => `M${ring.map((point) => point.join(' ')).join('L')}Z`).join('')

/** The name along the piece's longer side, as large as it fits; none where it cannot be read. */
function label(piece: CutPiece) {
  const xs = piece.rings[0]?.map(([x]) => x ?? 0) ?? []
  const ys = piece.rings[0]?.map(([, y]) => y ?? 0) ?? []
  const long = Math.max(...xs) - Math.min(...xs)
  const high = Math.max(...ys) - Math.min(...ys)
  const upright = high > long
  const words = piece.of > 1 ? `${piece.name} ${piece.number}` : piece.name
  const one = 12 / props.scale
  const wide = words.length * one * 0.56
  const [along, across] = upright ? [high, long] : [long, high]
  if (wide > along - one || across < one * 1.15) return null
  const [x = 0, y = 0] = piece.name_at
  const turned = upright ? `rotate(-90 ${x} ${y})` : undefined
  return { words, size: one, x, y: y + one * 0.35, turned }
}
</script>

<template>
  <svg
    :viewBox="`0 0 ${plan.length_mm} ${plan.width_mm}`"
    :width="plan.length_mm * scale"
    :height="plan.width_mm * scale"
    role="img"
    :aria-label="`${plan.name}, sheet ${number + 1}: ${pieces.map((each) => each.name).join(', ')}`"
  >
    <rect class="board" :width="plan.length_mm" :height="plan.width_mm" />
    <g
      v-for="(piece, k) in pieces"
      :key="k"
      class="piece"
      :class="{ lit: lit === piece.part, supposed: piece.is_supposed }"
      @pointerenter="emit('look', piece.part)"
      @pointerleave="emit('look', null)"
    >
      <title>{{ piece.name }}</title>
      <path :d="path(piece)" fill-rule="evenodd" />
      <polyline
        v-for="(line, at) in piece.folds"
        :key="`fold${at}`"
        class="fold"
        :points="line.map((point) => point.join(',')).join(' ')"
      />
      <template v-for="at in [label(piece)]" :key="at?.words">
        <text v-if="at" :x="at.x" :y="at.y" :font-size="at.size" :transform="at.turned">
          {{ at.words }}
        </text>
      </template>
    </g>
  </svg>
</template>

<style scoped>
svg {
  max-width: 100%;
  height: auto;
  display: block;
}

.fold {
  fill: none;
  stroke: var(--ink);
  stroke-dasharray: 6 4;
  vector-effect: non-scaling-stroke;
}

.board {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}

.piece path {
  fill: var(--tag);
  stroke: var(--ink);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}

.supposed path {
  stroke-dasharray: 5 3;
}

.lit path {
  fill: var(--tag-line);
}

text {
  text-anchor: middle;
  fill: var(--ink);
  font-family: var(--words);
  pointer-events: none;
}
</style>
