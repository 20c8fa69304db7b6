<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { plainly, useUnits } from '../shared/units'
import { useMayFly, type Balances } from './useMayFly'

/** Weight against where it balances: each loadout with its doubt, the range and the limit. */
const props = defineProps<Balances>()
const { number, units, stated } = useUnits()

const holder = ref<HTMLElement>()
const { width } = useElementSize(holder)
const { HEIGHT, TOP, BOTTOM, narrow, inner, x, y, px, py, named } = useMayFly(props, width)
const words = computed(() =>
  named.value
    .map(
      (each) =>
        `${each.name}: ${number(each.grams, 'mass')} ${units.value.mass.name} at ${number(each.x_mm, 'length')} ${units.value.length.name}`,
    )
    .join('; '),
)
</script>

<template>
  <figure ref="holder">
    <svg v-if="width" :width="width" :height="HEIGHT" role="img" :aria-label="words">
      <rect
        v-if="low !== null && high !== null"
        class="range"
        :x="px(low)"
        :width="Math.max(px(high) - px(low), 1)"
        :y="limit === null ? TOP : Math.max(py(limit), TOP)"
        :height="HEIGHT - BOTTOM - (limit === null ? TOP : Math.max(py(limit), TOP))"
      />
      <g class="frame">
        <line :x1="inner.from" :x2="inner.to" :y1="HEIGHT - BOTTOM" :y2="HEIGHT - BOTTOM" />
        <line :x1="inner.from" :x2="inner.from" :y1="TOP" :y2="HEIGHT - BOTTOM" />
      </g>
      <g v-for="tick in x.ticks(Math.max(3, (inner.to - inner.from) / 70))" :key="`x${tick}`">
        <line class="tick" :x1="x(tick)" :x2="x(tick)" :y1="HEIGHT - BOTTOM" :y2="HEIGHT - 46" />
        <text class="figure" :x="x(tick)" :y="HEIGHT - 32">{{ plainly(tick) }}</text>
      </g>
      <g v-for="tick in y.ticks(5)" :key="`y${tick}`">
        <line class="tick" :x1="inner.from - 6" :x2="inner.from" :y1="y(tick)" :y2="y(tick)" />
        <text class="figure end" :x="inner.from - 10" :y="y(tick) + 4">{{ plainly(tick) }}</text>
      </g>
      <text :x="(inner.from + inner.to) / 2" :y="HEIGHT - 10">
        CG, {{ units.length.name }} from the nose
      </text>
      <g v-for="each in named" :key="each.id" class="point" :class="{ here: each.here }">
        <ellipse
          :cx="px(each.x_mm)"
          :cy="py(each.grams)"
          :rx="Math.abs(px(each.x_mm + 2 * each.x_sd_mm) - px(each.x_mm))"
          :ry="Math.abs(py(each.grams + 2 * each.grams_sd) - py(each.grams))"
        />
        <line :x1="px(each.x_mm)" :y1="py(each.grams)" :x2="inner.to + 12" :y2="each.at - 4" />
        <circle :cx="px(each.x_mm)" :cy="py(each.grams)" r="4.5" />
        <text class="start" :x="inner.to + 16" :y="each.at">
          {{ narrow ? each.number : each.name }}
        </text>
      </g>
      <g v-if="limit !== null" class="limit">
        <line :x1="inner.from" :x2="inner.to" :y1="py(limit)" :y2="py(limit)" />
      </g>
    </svg>
    <figcaption class="small faint">
      <template v-if="limit !== null"
        >The line is the limit, {{ stated(limit) }} {{ units.mass.name }}; the</template
      ><template v-else>The</template>
      shaded field is where it may be.
      <ol v-if="narrow">
        <li v-for="each in named" :key="each.id">{{ each.name }}</li>
      </ol>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  min-width: 0;
}

.range {
  fill: var(--allowed);
  fill-opacity: 0.7;
}

.limit line {
  stroke: var(--oak);
  stroke-width: 2.5;
}

.frame line,
.tick {
  stroke: var(--ink);
}

text {
  font-size: 12px;
  fill: var(--faint);
  text-anchor: middle;
}

.end {
  text-anchor: end;
}

.start {
  text-anchor: start;
  fill: var(--ink);
}

.point line {
  stroke: var(--faint);
  stroke-width: 0.8;
}

.point ellipse {
  fill: var(--sea);
  fill-opacity: 0.14;
}

.point circle {
  fill: var(--sea);
}

.here .start {
  font-weight: 650;
}

ol {
  margin: 4px 0 0;
  padding-left: 20px;
  list-style: decimal;
}
</style>
