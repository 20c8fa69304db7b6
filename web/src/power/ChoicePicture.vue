<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'
import type { Choice } from '../api/client'
import { useDisplay } from 'vuetify'
import { plainly, useUnits } from '../shared/units'

const props = defineProps<{ choices: Choice[] }>()
const { number, units } = useUnits()

const { smAndDown } = useDisplay()
const W = computed(() => (smAndDown.value ? 350 : 620))
const H = 230
const LEFT = 40
const FOOT = 34

const shown = computed(() =>
  props.choices.flatMap((each, at) =>
    each.minutes === null ? [] : [{ ...each, at, minutes: each.minutes }],
  ),
)
const axes = computed(() => {
  const base = units.value.mass.base
  const masses = shown.value.map((each) => each.auw_g / base)
  const wide = Math.max((Math.max(...masses) - Math.min(...masses)) * 0.12, 8 / base)
  const most = 1.15 * Math.max(1, ...shown.value.map((each) => each.minutes))
  const x = scaleLinear(
    [Math.min(...masses) - wide, Math.max(...masses) + wide],
    [LEFT, W.value - 14],
  )
  const y = scaleLinear([0, most], [H - FOOT, 10])
  return {
    x: (grams: number) => x(grams / base),
    y,
    across: x.ticks(6).map((value) => ({ at: value * base, text: plainly(value) })),
    up: y.ticks(5),
  }
})
/** Names of the unbeaten, each where no other name lies. */
const names = computed(() => {
  const taken: { x: number; y: number; wide: number }[] = []
  return shown.value
    .filter((each) => each.unbeaten)
    .sort((a, b) => a.auw_g - b.auw_g)
    .map((each) => {
      const text = each.motor ? `${each.pack}, ${each.motor}` : each.pack
      const wide = 6.2 * text.length
      const dot = { x: axes.value.x(each.auw_g), y: axes.value.y(each.minutes) }
      const x = dot.x + 9 + wide > W.value - 4 ? dot.x - 9 - wide : dot.x + 9
      let y = dot.y + 4
      while (
        taken.some((o) => Math.abs(o.y - y) < 14 && x < o.x + o.wide + 4 && o.x < x + wide + 4)
      )
        y -= 14
      taken.push({ x, y, wide })
      return { key: each.at, text, x, y, dot }
    })
})
const words = computed(
  () =>
    `Minutes against all-up weight of ${shown.value.length} choices; nothing beats ` +
    names.value.map((each) => each.text).join(', '),
)
</script>

<template>
  <figure v-if="shown.length > 1">
    <svg :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="words">
      <g v-for="tick in axes.up" :key="`y${tick}`">
        <line class="grid" :x1="LEFT" :x2="W - 14" :y1="axes.y(tick)" :y2="axes.y(tick)" />
        <text class="end" :x="LEFT - 6" :y="axes.y(tick) + 4">{{ plainly(tick) }}</text>
      </g>
      <text
        v-for="tick in axes.across"
        :key="`x${tick.at}`"
        class="mid"
        :x="axes.x(tick.at)"
        :y="H - FOOT + 14"
      >
        {{ tick.text }}
      </text>
      <text class="mid" :x="(W + LEFT) / 2" :y="H - 4">all up, {{ units.mass.name }}</text>
      <text x="2" y="9">minutes</text>
      <template v-for="name in names" :key="name.key">
        <line
          v-if="Math.abs(name.y - 4 - name.dot.y) > 8"
          class="leader"
          :x1="name.dot.x"
          :y1="name.dot.y"
          :x2="name.x"
          :y2="name.y - 4"
        />
        <text class="name" :x="name.x" :y="name.y">{{ name.text }}</text>
      </template>
      <template v-for="each in shown" :key="each.at">
        <rect
          v-if="each.unbeaten"
          class="best"
          :x="axes.x(each.auw_g) - 5"
          :y="axes.y(each.minutes) - 5"
          width="10"
          height="10"
          :transform="`rotate(45 ${axes.x(each.auw_g)} ${axes.y(each.minutes)})`"
        >
          <title>{{ each.pack }}: {{ number(each.auw_g, 'mass') }}</title>
        </rect>
        <circle v-else class="other" :cx="axes.x(each.auw_g)" :cy="axes.y(each.minutes)" r="4">
          <title>{{ each.pack }}: {{ number(each.auw_g, 'mass') }}</title>
        </circle>
      </template>
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  max-width: 720px;
}

svg {
  width: 100%;
  height: auto;
  display: block;
}

text {
  font-size: 12px;
  fill: var(--faint);
}

.name {
  fill: var(--ink);
  font-weight: 600;
  paint-order: stroke;
  stroke: var(--linen);
  stroke-width: 5px;
}

.mid {
  text-anchor: middle;
}

.end {
  text-anchor: end;
}

.grid {
  stroke: var(--line);
}

.leader {
  stroke: var(--faint);
}

.best {
  fill: var(--sea);
}

.other {
  fill: none;
  stroke: var(--faint);
  stroke-width: 1.5;
}
</style>
