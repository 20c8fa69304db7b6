<script setup lang="ts">
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { UNDER, type BeamScale } from './useBeamScale'

/** Under the beam: the range that the CG belongs in, and the neutral point with its band. */
const props = defineProps<{ scale: BeamScale; depth: number }>()
const { assessment } = useBuild()

const beam = computed(() => assessment.value?.beam)
const range = computed(() => {
  const { low_mm: low, high_mm: high } = beam.value ?? {}
  if (typeof low !== 'number' || typeof high !== 'number') return undefined
  return { x: props.scale.x(low), width: Math.max(props.scale.long(high - low), 1) }
})
const neutral = computed(() => {
  const { neutral, band_mm: band } = beam.value ?? {}
  if (!neutral) return undefined
  const { x, long } = props.scale
  return { at: x(neutral.x_mm), x: x(neutral.x_mm - (band ?? 0)), width: long(2 * (band ?? 0)) }
})
</script>

<template>
  <g>
    <rect v-if="range" class="range" v-bind="range" :y="UNDER" :height="depth - UNDER" />
    <g v-if="neutral" class="np">
      <rect class="band" :x="neutral.x" :width="neutral.width" :y="UNDER" :height="depth - UNDER" />
      <line class="neutral" :x1="neutral.at" :x2="neutral.at" :y1="UNDER" :y2="depth" />
    </g>
  </g>
</template>

<style scoped>
.range {
  fill: var(--oak);
  fill-opacity: 0.22;
}

.band {
  fill: var(--faint);
  fill-opacity: 0.1;
}

.neutral {
  stroke: var(--ink);
  stroke-dasharray: 2 4;
  stroke-width: 2;
}
</style>
