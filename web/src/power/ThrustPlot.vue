<script setup lang="ts">
import { H, LEFT, RIGHT, W, type ThrustCurves } from './useThrustCurves'

/** Thrust against throttle as it is drawn. */
const props = defineProps<{ of: ThrustCurves; words: string }>()
const { curves, points, asked, scale, band, line } = props.of
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="words">
    <g v-for="tick in scale.ticks" :key="tick.at">
      <line class="grid" :x1="LEFT" :x2="W - RIGHT" :y1="scale.y(tick.at)" :y2="scale.y(tick.at)" />
      <text class="figure end" :x="LEFT - 6" :y="scale.y(tick.at) + 4">{{ tick.text }}</text>
    </g>
    <text
      v-for="percent in [0, 25, 50, 75, 100]"
      :key="percent"
      class="figure"
      :x="scale.x(percent / 100)"
      :y="H - 8"
    >
      {{ percent }}
    </text>
    <g v-for="each in curves" :key="each.pack" :class="{ mine: each.mine }">
      <polyline v-if="each.mine" class="fresh" :points="line(each.fresh_curve)" />
      <polygon class="band" :points="band(each.curve)" />
      <polyline class="line" :points="line(each.curve)" />
    </g>
    <line
      v-if="asked"
      class="asked"
      :x1="LEFT"
      :x2="W - RIGHT"
      :y1="scale.y(asked.gf)"
      :y2="scale.y(asked.gf)"
    />
    <g v-for="point in points" :key="point.key">
      <circle
        class="point"
        :class="{ doubted: point.doubted, waits: point.waits }"
        :cx="scale.x(point.throttle)"
        :cy="scale.y(point.thrust)"
        r="5"
      />
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-height: 380px;
  overflow: visible;
}

text {
  font-size: 11px;
  fill: var(--faint);
  text-anchor: middle;
}

.end {
  text-anchor: end;
}

.grid {
  stroke: var(--line);
}

.band {
  fill: var(--brass);
  fill-opacity: 0.16;
}

.line {
  fill: none;
  stroke: var(--brass);
  stroke-width: 2;
  stroke-dasharray: 6 4;
}

.mine .band {
  fill: var(--sea);
  fill-opacity: 0.2;
}

.mine .line {
  stroke: var(--sea);
  stroke-width: 2.5;
  stroke-dasharray: none;
}

.fresh {
  fill: none;
  stroke: var(--sea);
  stroke-width: 1;
}

.asked {
  stroke: var(--oak);
  stroke-width: 2;
}

.point {
  fill: var(--sea);
  stroke: var(--paper);
  stroke-width: 1.5;
}

.point.waits {
  fill: var(--brass);
}

.point.doubted {
  fill: var(--paper);
  stroke: var(--rust);
  stroke-width: 2;
}

@media (max-width: 700px) {
  text {
    font-size: 14px;
  }
}
</style>
