<script setup lang="ts">
import { computed } from 'vue'
import type { Offer } from './useCandidates'

const props = defineProps<{ offers: Offer[] }>()

const view = computed(() => {
  const boxes = props.offers.map((each) => each.candidate.box)
  const left = Math.min(...boxes.map((box) => box.left_mm))
  const top = Math.min(...boxes.map((box) => box.top_mm))
  const right = Math.max(...boxes.map((box) => box.right_mm))
  const bottom = Math.max(...boxes.map((box) => box.bottom_mm))
  const room = Math.max(right - left, bottom - top) * 0.03
  return {
    box: `${left - room} ${top - room} ${right - left + 2 * room} ${bottom - top + 2 * room}`,
    mark: Math.max(right - left, bottom - top) * 0.012,
  }
})

function path(rings: number[][][]): string {
  return rings.map((ring) => `M${ring.map((point) => point.join(' ')).join('L')}Z`).join('')
}
</script>

<template>
  <svg :viewBox="view.box" class="drawing" role="group" aria-label="Outlines of the drawing">
    <g
      v-for="each in offers"
      :key="each.key"
      class="part"
      :class="{ taken: each.taken, flawed: each.candidate.flaw }"
      role="button"
      :tabindex="each.candidate.flaw ? -1 : 0"
      :aria-pressed="each.taken"
      :aria-label="each.name"
      @click="each.candidate.flaw || (each.taken = !each.taken)"
      @keydown.enter.prevent="each.candidate.flaw || (each.taken = !each.taken)"
      @keydown.space.prevent="each.candidate.flaw || (each.taken = !each.taken)"
    >
      <title>{{ each.name }}</title>
      <path :d="path(each.candidate.rings)" fill-rule="evenodd" />
      <path
        class="centroid"
        :d="`M${each.candidate.x_mm - view.mark} ${each.candidate.y_mm}h${2 * view.mark}M${each.candidate.x_mm} ${each.candidate.y_mm - view.mark}v${2 * view.mark}`"
      />
    </g>
  </svg>
</template>

<style scoped>
.drawing {
  width: 100%;
  max-height: 360px;
  background: var(--paper);
  border: 1px solid var(--line);
}

.part {
  cursor: pointer;
  fill: transparent;
  stroke: var(--faint);
}

.part > path {
  vector-effect: non-scaling-stroke;
  stroke-width: 1.2;
}

.taken {
  fill: var(--tag);
  stroke: var(--ink);
}

.flawed {
  stroke: var(--rust);
  stroke-dasharray: 4 3;
  cursor: default;
}

.centroid {
  stroke: var(--sea);
  fill: none;
}
</style>
