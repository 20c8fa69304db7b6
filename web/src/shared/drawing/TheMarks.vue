<script setup lang="ts">
import type { useMarks } from './useMarks'
import type { useScale } from './useScale'

/** Where it may balance, the neutral point and the mean aerodynamic chord, on the plan. */
const { marks, scale } = defineProps<{
  marks: ReturnType<typeof useMarks>
  scale: ReturnType<typeof useScale>
}>()
const { range, neutral, mac } = marks
const { x, y, plan } = scale
</script>

<template>
  <rect
    v-if="range"
    class="range"
    :x="x(range.low)"
    :width="Math.max(x(range.high) - x(range.low), 1)"
    :y="plan.top"
    :height="plan.bottom - plan.top"
  />
  <line
    v-if="typeof neutral === 'number'"
    class="np"
    :x1="x(neutral)"
    :x2="x(neutral)"
    :y1="plan.top"
    :y2="plan.bottom"
  />
  <line
    v-if="mac"
    class="mac"
    :x1="x(mac.mac_le_x_mm)"
    :x2="x(mac.mac_le_x_mm + mac.mac_mm)"
    :y1="y(-mac.span_mm / 4)"
    :y2="y(-mac.span_mm / 4)"
  >
    <title>mean aerodynamic chord</title>
  </line>
</template>

<style scoped>
.range {
  fill: var(--oak);
  fill-opacity: 0.28;
  pointer-events: none;
}

.np {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 2 3;
  pointer-events: none;
}

.mac {
  stroke: var(--ink);
  stroke-width: 3;
}
</style>
