<script setup lang="ts">
import { computed } from 'vue'
import { goesSideways, SEEN, useFieldWords } from '../say/field'
import { useBuild } from '../shared/useBuild'
import { fixed, plainly, useUnits } from '../shared/units'
import { useField } from './useField'

const { throws, controls, told, setAside } = useField()
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
const groups = computed(() => {
  const all = new Map<string, { name: string[]; far: { id: string; m: number; n: number }[] }>()
  speaking.value.forEach((each, n) => {
    if (!each.distance_m) return
    const name = changing.value.map((control) => {
      const at = (each.settings ?? []).find((one) => one.control === control.id)?.mm ?? 0
      return `${control.name.toLowerCase()} ${words.setting(at, goesSideways(control, fins.value))}`
    })
    const key = name.join('|')
    const group = all.get(key) ?? { name, far: [] }
    group.far.push({ id: each.id, m: each.distance_m / base.value, n })
    all.set(key, group)
  })
  return [...all.values()].slice(-5)
})
const top = computed(() => {
  const most = Math.max(1, ...groups.value.flatMap((group) => group.far.map((each) => each.m)))
  const step = [1, 2, 5, 10, 20, 50, 100].find((each) => most / each <= 5) ?? 100
  return { most: Math.ceil(most / step) * step, step }
})
const ticks = computed(() =>
  Array.from({ length: top.value.most / top.value.step + 1 }, (_, k) => k * top.value.step),
)
const y = (m: number) => H - (m / top.value.most) * (H - 12)
const wide = computed(() => (W - LEFT) / Math.max(groups.value.length, 1))

const rows = computed(() =>
  [...throws.value]
    .map((each, k) => ({ ...each, number: k + 1 }))
    .reverse()
    .slice(0, 30),
)
</script>

<template>
  <section aria-label="Throws">
    <svg
      v-if="groups.length"
      :viewBox="`0 0 ${W} ${H + 14 + 20 * Math.max(1, changing.length)}`"
      role="img"
      :aria-label="`Distances by setting: ${groups.map((g) => `${g.name.join(', ') || 'as set'}: ${g.far.map((each) => fixed(each.m, 1)).join(', ')}`).join('; ')}`"
    >
      <g v-for="tick in ticks" :key="tick">
        <line :x1="LEFT" :x2="W" :y1="y(tick)" :y2="y(tick)" class="grid" />
        <text :x="LEFT - 8" :y="y(tick) + 4" text-anchor="end" class="figure">{{ tick }}</text>
      </g>
      <g v-for="(group, k) in groups" :key="group.name.join()">
        <line
          :x1="LEFT + wide * k + 10"
          :x2="LEFT + wide * (k + 1) - 10"
          :y1="
            y(
              Math.exp(
                group.far.reduce((sum, each) => sum + Math.log(each.m), 0) / group.far.length,
              ),
            )
          "
          :y2="
            y(
              Math.exp(
                group.far.reduce((sum, each) => sum + Math.log(each.m), 0) / group.far.length,
              ),
            )
          "
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
    <h3 v-if="rows.length">The page</h3>
    <ol aria-label="Throws, newest first" reversed>
      <li v-for="each in rows" :key="each.id" :class="{ gone: each.set_aside, waits: each.waits }">
        <span class="figure faint">{{ each.number }}</span>
        <span class="did">
          {{ each.seen ? SEEN[each.seen] : '' }}
          <span v-if="each.distance_m" class="figure">{{ words.far(each.distance_m) }}</span>
          <span v-if="each.seconds" class="figure">{{ plainly(each.seconds) }} s</span>
          <span v-if="each.note" class="faint">{{ each.note }}</span>
          <small v-if="each.waits" class="sea">waits</small>
        </span>
        <v-verb
          v-if="!each.waits"
          class="small faint"
          @click="setAside(each.id, each.set_aside ? null : 'no fair throw')"
        >
          {{ each.set_aside ? 'count it again' : 'set aside' }}
        </v-verb>
      </li>
    </ol>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  min-width: 0;
}

h3,
p {
  margin: 0;
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

ol {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 40px;
  border-bottom: 1px solid var(--line);
}

.did {
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
}

.gone .did {
  text-decoration: line-through;
}

.sea {
  color: var(--sea);
}

li button {
  min-height: 40px;
}

@media (max-width: 600px) {
  text {
    font-size: 17px;
  }
}
</style>
