<script setup lang="ts">
import { computed } from 'vue'
import type { TargetAnswer } from '../api/client'

/** A rod's stretch of its measure: what is allowed, where the answer stands, and its doubt. */
const props = defineProps<{ answer: TargetAnswer }>()

const TICKS = 24

/** The stretch of the measure that the rod shows. */
const span = computed(() => {
  const { value: at, sd, low, high } = props.answer
  const doubt = 2 * (sd ?? 0)
  const points = [at === null ? null : at - doubt, at === null ? null : at + doubt, low, high]
  const known = points.filter((point) => point !== null)
  if (known.length === 0) return { from: 0, to: 1 }
  const least = Math.min(...known)
  const most = Math.max(...known)
  const room = Math.max((most - least) * 0.45, Math.abs(most) * 0.03, 1e-6)
  return { from: least - room, to: most + room }
})

function along(point: number): number {
  const { from, to } = span.value
  return Math.min(Math.max(((point - from) / (to - from)) * 100, 0), 100)
}

const allowed = computed(() => {
  const { low, high } = props.answer
  if (low === null && high === null) return null
  const from = low === null ? 0 : along(low)
  return { left: `${from}%`, width: `${(high === null ? 100 : along(high)) - from}%` }
})

const bar = computed(() => {
  const { value: at, sd } = props.answer
  if (at === null || sd === null) return null
  const from = along(at - 2 * sd)
  return { left: `${from}%`, width: `${Math.max(along(at + 2 * sd) - from, 0.6)}%` }
})
</script>

<template>
  <span class="measure" aria-hidden="true">
    <span v-if="allowed" class="allowed" :style="allowed" />
    <span class="base" />
    <span
      v-for="tick in TICKS + 1"
      :key="tick"
      class="tick"
      :class="{ long: (tick - 1) % 4 === 0 }"
      :style="{ left: `${((tick - 1) / TICKS) * 100}%` }"
    />
    <span v-if="answer.low !== null" class="edge" :style="{ left: `${along(answer.low)}%` }" />
    <span v-if="answer.high !== null" class="edge" :style="{ left: `${along(answer.high)}%` }" />
    <span v-if="bar" class="bar" :style="bar" />
    <span
      v-if="answer.value !== null"
      class="pointer"
      :style="{ left: `${along(answer.value)}%` }"
    />
  </span>
</template>

<style scoped>
.measure {
  position: relative;
  height: 28px;
  display: block;
}

.base {
  position: absolute;
  inset: 17px 0 auto;
  border-top: 1px solid var(--ink);
}

.tick {
  position: absolute;
  top: 17px;
  height: 5px;
  border-left: 1px solid var(--faint);
}

.tick.long {
  height: 9px;
}

.allowed {
  position: absolute;
  top: 12px;
  height: 6px;
  background: var(--allowed);
}

.edge {
  position: absolute;
  top: 9px;
  height: 16px;
  margin-left: -1px;
  border-left: 3px solid var(--edge);
}

.bar {
  position: absolute;
  top: 15px;
  height: 5px;
  background: var(--sea);
  transition: 0.25s ease-out;
}

.pointer {
  position: absolute;
  top: 2px;
  margin-left: -7px;
  border: 7px solid transparent;
  border-top: 11px solid var(--brass);
  border-bottom: 0;
  transition: left 0.25s ease-out;
}
</style>
