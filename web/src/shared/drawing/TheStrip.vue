<script setup lang="ts">
import { computed } from 'vue'
import type { Ref } from 'vue'
import { ROW } from './useScale'

export interface Flag {
  key: string
  at_mm: number
  text: string
}

/**
 * What lies at a station, named between the views. Each name begins at its own line and runs to the
 * right; the one farther aft stands higher, so no line passes through a name.
 */
const props = defineProps<{
  flags: Flag[]
  scale: {
    x: (mm: number) => number
    plan: Ref<{ bottom: number }>
    sideTop: Ref<number>
    ticks: Ref<{ at: number; text: string }[]>
  }
}>()
const placed = computed(() =>
  [...props.flags]
    .sort((one, other) => other.at_mm - one.at_mm)
    .map((flag, row) => ({
      ...flag,
      x: props.scale.x(flag.at_mm),
      y: props.scale.plan.value.bottom + 6 + ROW * (row + 1),
    })),
)
const axis = computed(() => props.scale.sideTop.value - 8)
</script>

<template>
  <g class="strip">
    <g v-for="flag in placed" :key="flag.key" :class="flag.key">
      <line :x1="flag.x" :x2="flag.x" :y1="scale.plan.value.bottom" :y2="flag.y" />
      <text :x="flag.x + 5" :y="flag.y" data-flag>{{ flag.text }}</text>
    </g>
    <text
      v-for="tick in scale.ticks.value"
      :key="tick.text"
      class="tick"
      :x="tick.at"
      :y="axis"
      text-anchor="middle"
      data-flag
    >
      {{ tick.text }}
    </text>
  </g>
</template>

<style scoped>
text {
  font-family: var(--figures);
  font-size: 12px;
  fill: var(--ink);
}

.tick {
  fill: var(--faint);
  font-size: 11px;
}

line {
  stroke: var(--ink);
  stroke-width: 1.2;
}

.cg line {
  stroke: var(--sea);
}

.cg text {
  fill: var(--sea);
}

.low line,
.high line {
  stroke: var(--oak);
}

.np line {
  stroke-dasharray: 2 3;
  stroke-width: 2;
}
</style>
