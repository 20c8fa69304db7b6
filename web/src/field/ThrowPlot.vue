<script setup lang="ts">
import { inSentence } from '../say/names'
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'
import { goesSideways, useFieldWords } from '../say/field'
import { useBuild } from '../shared/useBuild'
import { fixed, plainly, useUnits } from '../shared/units'
import { useField } from './useField'

const { throws, controls, told } = useField()
const { build } = useBuild()
const { units } = useUnits()
const words = useFieldWords()

const W = 560
const H = 200
const LEFT = 40

const fins = computed(
  () => new Set((build.value?.surfaces ?? []).filter((s) => s.role === 'fin').map((s) => s.id)),
)
const base = computed(() => units.value.run.base)
const speaking = computed(() => throws.value.filter((each) => !each.set_aside))

/** The throws whose distance was more likely bad than not, by their ids. */
const bad = computed(() => new Set((told.value?.changes ?? []).flatMap((each) => each.bad)))

/** Only those tabs are named that ever stood otherwise. */
const changing = computed(() =>
  controls.value.filter((control) => {
    const at = speaking.value.map(
      (each) => (each.settings ?? []).find((one) => one.control === control.id)?.mm ?? 0,
    )
    return new Set(at).size > 1
  }),
)
/** How far the setting of a throw goes; of what waits here alone nobody says yet. */
const goes = (ids: string[]) =>
  told.value?.flown.find((each) => ids.some((id) => each.throws.includes(id)))?.goes_m
const groups = computed(() => {
  const all = new Map<string, { name: string[]; far: { id: string; m: number; n: number }[] }>()
  speaking.value.forEach((each, n) => {
    if (!each.distance_m) return
    const name = changing.value.map((control) => {
      const at = (each.settings ?? []).find((one) => one.control === control.id)?.mm ?? 0
      return `${inSentence(control.name)} ${words.setting(at, goesSideways(control, fins.value))}`
    })
    const key = name.join('|')
    const group = all.get(key) ?? { name, far: [] }
    group.far.push({ id: each.id, m: each.distance_m / base.value, n })
    all.set(key, group)
  })
  return [...all.values()].slice(-5).map((group) => {
    const far = goes(group.far.map((each) => each.id))
    return { ...group, goes: far === undefined ? undefined : far / base.value }
  })
})
const y = computed(() => {
  const most = Math.max(1, ...groups.value.flatMap((group) => group.far.map((each) => each.m)))
  return scaleLinear([0, most], [H, 12]).nice(5)
})
const wide = computed(() => (W - LEFT) / Math.max(groups.value.length, 1))
</script>

<template>
  <div class="plot">
    <svg
      v-if="groups.length"
      :viewBox="`0 0 ${W} ${H + 14 + 20 * Math.max(1, changing.length)}`"
      role="img"
      :aria-label="`Distances by setting: ${groups.map((g) => `${g.name.join(', ') || 'as set'}: ${g.far.map((each) => fixed(each.m, 1)).join(', ')}`).join('; ')}`"
    >
      <g v-for="tick in y.ticks(5)" :key="tick">
        <line :x1="LEFT" :x2="W" :y1="y(tick)" :y2="y(tick)" class="grid" />
        <text :x="LEFT - 8" :y="y(tick) + 4" text-anchor="end" class="figure">
          {{ plainly(tick) }}
        </text>
      </g>
      <g v-for="(group, k) in groups" :key="group.name.join()">
        <line
          v-if="group.goes !== undefined"
          :x1="LEFT + wide * k + 10"
          :x2="LEFT + wide * (k + 1) - 10"
          :y1="y(group.goes)"
          :y2="y(group.goes)"
          class="mean"
        />
        <circle
          v-for="(each, j) in group.far"
          :key="each.id"
          :cx="LEFT + wide * k + (wide * (j + 1)) / (group.far.length + 1)"
          :cy="y(each.m)"
          r="5.5"
          :class="{ hollow: bad.has(each.id) }"
        />
        <text
          v-for="(line, j) in group.name"
          :key="line"
          :x="LEFT + wide * (k + 0.5)"
          :y="H + 18 + 20 * j"
          text-anchor="middle"
        >
          {{ line }}
        </text>
      </g>
    </svg>
    <p v-if="bad.size" class="small faint">
      Hollow: more likely a bad throw than not. It counts for little, and stays.
    </p>
  </div>
</template>

<style scoped>
.plot {
  display: grid;
  gap: 8px;
  min-width: 0;
}

svg {
  width: 100%;
  background: var(--paper);
  border: 1px solid var(--line);
}

.grid {
  stroke: var(--line);
}

text {
  font-size: 12.5px;
  fill: var(--ink);
}

.mean {
  stroke: var(--oak);
  stroke-width: 2;
}

circle {
  fill: var(--brass);
  fill-opacity: 0.6;
  stroke: var(--ink);
}

.hollow {
  fill: none;
}

@media (max-width: 600px) {
  text {
    font-size: 17px;
  }
}
</style>
