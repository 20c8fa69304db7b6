<script setup lang="ts">
import { useBalanceWords } from '../say/balance'
import { useElementSize } from '@vueuse/core'
import { scaleLinear } from 'd3-scale'
import { computed, ref } from 'vue'
import type { Outline } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import SavePicture from '../shared/SavePicture.vue'
import DrawnPlane from '../shared/drawing/DrawnPlane.vue'
import TheStrip, { type Flag } from '../shared/drawing/TheStrip.vue'
import { ROW } from '../shared/drawing/useScale'
import { hangings } from './hanging'
import HungMass from './HungMass.vue'
import { useHung } from './useHung'
import { useTrial } from './useTrial'
const { checked } = useBalanceWords()

const { build, assessment, loadout, balanced: mine } = useBuild()
const { number, quantity, units } = useUnits()
const { move, tried, keep, drop } = useTrial()
const hung = useHung()

const holder = ref<HTMLElement>()
const { width } = useElementSize(holder)
/** Drawn in the pixels that there are: letters keep their size on any screen. */
const WIDTH = computed(() => Math.max(300, Math.round(width.value)))
const BEAM_Y = 118
const BODY_Y = BEAM_Y - 30
const svg = ref<SVGSVGElement>()

const told = computed(() => assessment.value?.beam)
const cg = computed(() => loadout.value?.cg)

/** One station axis for the beam and the plan view. */
const axis = computed(() => {
  const outlines = assessment.value?.outlines ?? []
  const xs = [
    0,
    ...outlines.flatMap((each) => each.corners.map(([x]) => x)),
    ...hung.value.flatMap((each) => [each.x, ...(each.slide ? [each.slide.low] : [])]),
  ]
  const from = Math.min(...xs)
  const to = Math.max(...xs, from + 200)
  const scale = (WIDTH.value - 90) / (to - from)
  return { from, to, scale }
})
const at = (x: number) => 45 + (x - axis.value.from) * axis.value.scale
const long = (mm: number) => mm * axis.value.scale

const edge = computed(() => {
  const { low_mm: low, high_mm: high } = told.value ?? { low_mm: null, high_mm: null }
  if (low !== null && high !== null) return (low + high) / 2
  return low ?? high ?? cg.value?.x_mm ?? null
})

/** How far the beam tips, in degrees: by the moment about its edge for each gram aboard. */
const tilt = computed(() => {
  if (edge.value === null || !cg.value) return 0
  return 9 * Math.tanh((cg.value.x_mm - edge.value) / 28)
})

const radius = (mass: number) => 2.2 * Math.sqrt(Math.max(mass, 0))
const ends = computed(() => ({ from: at(axis.value.from) - 20, to: at(axis.value.to) + 20 }))

/** Where each mass hangs, and where its name stands, clear of all that hangs beside it. */
const placed = computed(() => {
  const turn = (tilt.value * Math.PI) / 180
  const pivot = at(edge.value ?? 0)
  const discs = hung.value.map((each) => {
    const x = at(each.x)
    return {
      mass: each,
      x,
      r: Math.max(radius(each.mass), 7),
      top: BEAM_Y + (x - pivot) * Math.tan(turn) + 8,
      reach: each.slide ? { low: at(each.slide.low), high: at(each.slide.high) } : null,
    }
  })
  const found = hangings(
    discs.map((each) => ({
      ...each,
      ...{ id: each.mass.id, name: each.mass.name, mass: each.mass.mass },
    })),
    BEAM_Y,
    told.value?.neutral ? [at(told.value.neutral.x_mm)] : [],
    WIDTH.value,
  )
  return discs.flatMap((each) => {
    const hanging = found.get(each.mass.id)
    return hanging ? [{ ...each, hanging }] : []
  })
})
const depth = computed(() =>
  Math.max(260, ...placed.value.map(({ hanging, r }) => hanging.y + r + 24)),
)
/** The range, the neutral point and the CG where the plane hangs, named under it. */
const flags = computed<Flag[]>(() => {
  const found: Flag[] = []
  const { low_mm: low, high_mm: high, neutral } = told.value ?? {}
  if (cg.value)
    found.push({
      key: 'cg',
      at_mm: cg.value.x_mm,
      text: `CG ${number(cg.value.x_mm, 'length')} ±${number(2 * cg.value.x_sd_mm, 'length')} ${units.value.length.name}`,
    })
  if (neutral)
    found.push({
      key: 'np',
      at_mm: neutral.x_mm,
      text: `neutral point ${number(neutral.x_mm, 'length')}`,
    })
  if (typeof low === 'number')
    found.push({
      key: 'low',
      at_mm: low,
      text:
        typeof high === 'number'
          ? `range ${number(low, 'length')} to ${number(high, 'length')}`
          : `at least ${number(low, 'length')}`,
    })
  else if (typeof high === 'number')
    found.push({ key: 'high', at_mm: high, text: `at most ${number(high, 'length')}` })
  return found
})
const foot = computed(() => depth.value + flags.value.length * ROW + 30)
const strip = {
  x: at,
  plan: computed(() => ({ bottom: depth.value })),
  sideTop: foot,
  ticks: computed(() => ticks.value.map((each) => ({ at: at(each.mm), text: each.text }))),
}
const height = computed(() => foot.value + 4)

/** Heights are drawn at half size, from the fuselage's middle up. */
const up = (z: number) => BODY_Y - long(z) * 0.5

/** A fin as it is, anything else as its root section: a thin lens. */
function sideOf(outline: Outline): string {
  const [first] = outline.side
  const last = outline.side.at(-1)
  if (!first || !last) return ''
  if (outline.role === 'fin')
    return `M${outline.side.map(([x, z]) => `${at(x)} ${up(z)}`).join(' L')} Z`
  const [a, b, y] = [at(first[0]), at(last[0]), up(first[1])]
  const thick = Math.max(4, (b - a) * 0.1)
  return `M${a} ${y} Q${a + (b - a) * 0.25} ${y - 1.7 * thick} ${b} ${y} Q${a + (b - a) * 0.4} ${y + 0.5 * thick} ${a} ${y} Z`
}
const wingTop = computed(() => {
  const wing = (assessment.value?.outlines ?? []).find((each) => each.role === 'wing')
  return Math.min(Math.max(long(wing?.side[0]?.[1] ?? 0) * 0.5, 15), 40)
})
const body = computed(() => {
  const nose = at(Math.min(0, axis.value.from))
  const tail = at(
    Math.max(0, ...(assessment.value?.outlines ?? []).flatMap((o) => o.corners.map(([x]) => x))),
  )
  const y = BODY_Y
  const top = wingTop.value
  const along = (share: number) => nose + (tail - nose) * share
  return `${nose},${y} ${nose + 34},${y - 15} ${along(0.2)},${y - top} ${along(0.5)},${y - top} ${tail},${y - 6} ${tail},${y + 4} ${along(0.45)},${y + 18} ${nose + 26},${y + 16}`
})

const headline = computed(() => {
  const of = mine.value
  if (!of?.heavy || !cg.value) return 'Where it balances'
  if (of.heavy === 'in its range') return 'Balanced: in its range'
  const far = quantity(Math.abs(of.off_mm), 'length', units.value.length.name === 'mm' ? 0 : 2)
  return `${of.heavy === 'tail-heavy' ? 'Tail-heavy' : 'Nose-heavy'}: ${far} ${of.heavy === 'tail-heavy' ? 'aft' : 'ahead'} of its range`
})
const isOff = computed(
  () => mine.value?.heavy === 'tail-heavy' || mine.value?.heavy === 'nose-heavy',
)
const count = computed(() => hung.value.reduce((sum, each) => sum + each.parts.length, 0))

/** Round figures of the unit that is chosen. */
const ticks = computed(() => {
  const base = units.value.length.base
  const { from, to } = axis.value
  const many = Math.max(3, Math.floor(WIDTH.value / 85))
  return scaleLinear()
    .domain([from / base, to / base])
    .ticks(many)
    .map((each) => ({ mm: each * base, text: String(each) }))
})

function toMm(event: PointerEvent): number {
  const box = svg.value?.getBoundingClientRect()
  if (!box) return 0
  const px = ((event.clientX - box.left) * WIDTH.value) / box.width
  return (px - 45) / axis.value.scale + axis.value.from
}
</script>

<template>
  <section aria-label="Beam">
    <div class="head">
      <div>
        <h2 :class="{ wrong: isOff }" aria-live="polite">{{ headline }}</h2>
        <p class="faint small">
          {{ loadout?.name }}; sum of {{ count }} masses; {{ mine ? checked(mine.checked) : '' }}
        </p>
      </div>
      <p v-if="tried" class="trial small" role="status">
        tried, not kept
        <button type="button" class="plainly under" @click="keep">keep <kbd>Enter</kbd></button>
        <button type="button" class="plainly under" @click="drop">drop <kbd>Esc</kbd></button>
      </p>
    </div>
    <div ref="holder">
      <svg
        v-if="width"
        ref="svg"
        :viewBox="`0 0 ${WIDTH} ${height}`"
        role="group"
        aria-label="The plane on its beam"
      >
        <rect
          v-if="told?.low_mm != null && told.high_mm != null"
          class="range"
          :x="at(told.low_mm)"
          :width="Math.max(long(told.high_mm - told.low_mm), 1)"
          :y="BEAM_Y + 8"
          :height="depth - BEAM_Y - 8"
        />
        <g v-if="told?.neutral" class="np">
          <rect
            class="band"
            :x="at(told.neutral.x_mm - (told.band_mm ?? 0))"
            :width="long(2 * (told.band_mm ?? 0))"
            :y="BEAM_Y + 8"
            :height="depth - BEAM_Y - 8"
          />
          <line
            class="neutral"
            :x1="at(told.neutral.x_mm)"
            :x2="at(told.neutral.x_mm)"
            :y1="BEAM_Y + 8"
            :y2="depth"
          />
        </g>
        <g
          class="tilts"
          :style="{
            transformOrigin: `${at(edge ?? 0)}px ${BEAM_Y + 8}px`,
            transform: `rotate(${tilt}deg)`,
          }"
        >
          <polygon class="fuselage" :points="body" />
          <path
            v-for="outline in assessment?.outlines ?? []"
            :key="outline.id"
            class="side"
            :class="outline.role"
            :d="sideOf(outline)"
          />
          <line
            v-if="build?.thrust?.line_z_mm != null"
            class="thrust"
            :x1="at(Math.min(0, axis.from)) - 26"
            :x2="at(Math.min(0, axis.from)) + 40"
            :y1="up(build.thrust.line_z_mm)"
            :y2="up(build.thrust.line_z_mm)"
          />
          <rect
            class="oak"
            :x="ends.from"
            :y="BEAM_Y - 6"
            :width="ends.to - ends.from"
            height="14"
          />
          <line
            v-for="tick in ticks"
            :key="tick.text"
            class="notch"
            :x1="at(tick.mm)"
            :x2="at(tick.mm)"
            :y1="BEAM_Y - 6"
            :y2="BEAM_Y"
          />
        </g>
        <polygon
          v-if="edge !== null"
          class="knife"
          :points="`${at(edge)},${BEAM_Y + 8} ${at(edge) - 15},${BEAM_Y + 34} ${at(edge) + 15},${BEAM_Y + 34}`"
        />
        <line
          v-for="each in placed"
          :key="`s${each.mass.id}`"
          class="string"
          :x1="each.x"
          :x2="each.x"
          :y1="each.top"
          :y2="each.hanging.y - each.r"
        />
        <HungMass
          v-for="each in placed"
          :key="each.mass.id"
          v-bind="each"
          :to-mm="toMm"
          @slid="move(each.mass.id, $event)"
          @kept="keep"
          @dropped="drop"
        />

        <TheStrip :flags="flags" :scale="strip" />
      </svg>
    </div>
    <SavePicture :of="holder" what="beam" />
    <DrawnPlane
      class="above"
      :surfaces="build?.surfaces ?? []"
      :bodies="build?.bodies ?? []"
      :assessment="assessment"
      :loadout="loadout"
      :chosen="-1"
      :most="430"
    />
  </section>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  gap: 18px;
}

.trial {
  border-left: 4px solid var(--sea);
  background: var(--sea-wash);
  padding: 5px 10px;
  display: flex;
  gap: 10px;
  align-items: center;
  align-self: start;
}

svg {
  display: block;
  width: 100%;
  height: auto;
  touch-action: pan-y;
}

.tilts {
  transition: transform 0.25s ease-out;
}

.fuselage,
.side {
  fill: var(--tag);
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-linejoin: round;
}

.side {
  fill: var(--tag-line);
  stroke-width: 1.4;
}

.oak {
  fill: var(--oak);
  stroke: var(--ink);
}

.notch {
  stroke: var(--oak-text);
}

.thrust {
  stroke: var(--rust);
  stroke-width: 2;
  stroke-dasharray: 6 4;
}

.knife {
  fill: var(--ink);
}

.string {
  stroke: var(--ink);
}

.range {
  fill: var(--oak);
  fill-opacity: 0.22;
}

.above {
  margin-top: 8px;
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

@media (prefers-reduced-motion: reduce) {
  .tilts {
    transition: none;
  }
}
</style>
