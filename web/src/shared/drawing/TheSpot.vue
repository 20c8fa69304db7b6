<script setup lang="ts">
import type { Loadout } from '../../api/client'
import type { useScale } from './useScale'

/** The centre of gravity on the plan, with its doubt. */
const { cg, scale } = defineProps<{
  cg: NonNullable<Loadout['cg']>
  scale: ReturnType<typeof useScale>
}>()
const { x, y, plan, perMm } = scale
</script>

<template>
  <g class="cg" :transform="`translate(${x(cg.x_mm)} ${y(cg.y_mm)})`">
    <line class="drop" x1="0" x2="0" y1="0" :y2="plan.bottom - y(cg.y_mm)" />
    <ellipse
      :rx="Math.max(2 * cg.x_sd_mm * perMm, 1.5)"
      :ry="Math.max(2 * cg.y_sd_mm * perMm, 1.5)"
    />
    <path d="M-11 0 H11 M0 -11 V11" />
  </g>
</template>

<style scoped>
.cg {
  pointer-events: none;
}

ellipse {
  fill: var(--sea);
  fill-opacity: 0.3;
}

path {
  stroke: var(--sea);
  stroke-width: 2.5;
}

.drop {
  stroke: var(--sea);
  stroke-width: 1;
}
</style>
