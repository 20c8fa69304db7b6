<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, toRef } from 'vue'
import type { Assessment, Body, Part, Loadout, Surface } from '../../api/client'
import { useUnits } from '../units'
import { COLOURS } from '../../say/colours'
import BodyDrawn from './BodyDrawn.vue'
import BodyHandles, { type FrameTo } from './BodyHandles.vue'
import ColouredParts from './ColouredParts.vue'
import SurfaceShape from './SurfaceShape.vue'
import TheCorners, { type To } from './TheCorners.vue'
import TheStrip, { type Flag } from './TheStrip.vue'
import { useScale } from './useScale'

const props = defineProps<{
  surfaces: Surface[]
  bodies?: Body[]
  assessment: Assessment | undefined
  loadout: Loadout | undefined
  /** Which one may be worked on, the surfaces first and then the bodies; none with -1. */
  chosen: number
  /** What is drawn where it sits, if it has a colour; what follows a surface colours that. */
  parts?: Part[]
  /** No higher than this [px]. */
  most?: number
}>()
const emit = defineEmits<{
  choose: [surface: number]
  moved: [section: number, to: To]
  kept: []
  movedFrame: [frame: number, to: FrameTo]
  keptFrame: []
}>()

const { number, units } = useUnits()
const holder = ref<HTMLElement>()
const svg = ref<SVGSVGElement>()
const { width } = useElementSize(holder)
const height = computed(() => Math.min(props.most ?? 640, Math.max(380, 1.18 * width.value)))

const claimed = computed(() => {
  const wing = props.assessment?.outlines.find((each) => each.role === 'wing')
  return wing !== undefined && !wing.untouched
})
const untouched = computed(
  () => new Set(props.assessment?.outlines.filter((each) => each.untouched).map((each) => each.id)),
)
const cg = computed(() => props.loadout?.cg)
const beam = computed(() => props.assessment?.beam)

/** What nobody has drawn yet claims nothing: no neutral point, no range, no mean chord. */
const flags = computed<Flag[]>(() => {
  const found: Flag[] = []
  const add = (key: string, at: number | null | undefined, text: (mm: string) => string) => {
    if (typeof at === 'number') found.push({ key, at_mm: at, text: text(number(at, 'length')) })
  }
  const spot = cg.value
  add('cg', spot?.x_mm, (mm) => `CG ${mm} ±${number(2 * (spot?.x_sd_mm ?? 0), 'length')}`)
  if (!claimed.value) return found
  add(
    'np',
    beam.value?.neutral?.x_mm,
    (mm) => `neutral point ${mm} ±${number(beam.value?.band_mm ?? 0, 'length')}`,
  )
  const [low, high] = [beam.value?.low_mm, beam.value?.high_mm]
  if (typeof low === 'number' && typeof high === 'number')
    add('low', low, (mm) => `range ${mm} to ${number(high, 'length')}`)
  else {
    add('low', low, (mm) => `at least ${mm}`)
    add('high', high, (mm) => `at most ${mm}`)
  }
  return found
})

const scale = useScale(
  toRef(props, 'surfaces'),
  { width, height },
  computed(() => flags.value.length),
  computed(() => props.bodies ?? []),
)
const { x, y, z, mm, plan } = scale
const range = computed(() => {
  const { low_mm: low, high_mm: high } = beam.value ?? {}
  return claimed.value && typeof low === 'number' && typeof high === 'number'
    ? { from: x(low), wide: x(high) - x(low) }
    : undefined
})
const mac = computed(() => (claimed.value ? props.assessment?.wing : undefined))
const words = computed(() => {
  const wing = props.assessment?.wing
  const names = props.surfaces.map((each) => each.name).join(', ')
  const span = wing
    ? ` The wing spans ${number(wing.span_mm, 'length')} ${units.value.length.name}.`
    : ''
  return `The plane from above, from the side and from the front: ${names}.${span} ${flags.value
    .map((each) => each.text)
    .join('; ')}`
})
/** The fill of what has coloured parts, by its id. */
const fills = computed(() =>
  Object.fromEntries(
    (props.parts ?? []).flatMap(({ drawn, colour }) =>
      drawn && colour ? [[drawn.of, COLOURS[colour]]] : [],
    ),
  ),
)
const surface = computed(() => props.surfaces[props.chosen])
const body = computed(() => props.bodies?.[props.chosen - props.surfaces.length])
</script>

<template>
  <div ref="holder" class="drawn">
    <svg
      v-if="width"
      ref="svg"
      :width="Math.max(width, 10)"
      :height="scale.height.value"
      role="group"
      :aria-label="words"
    >
      <g class="grid">
        <template v-for="tick in scale.ticks.value" :key="tick.text">
          <line :x1="tick.at" :x2="tick.at" :y1="plan.top" :y2="plan.bottom" />
          <line
            :x1="tick.at"
            :x2="tick.at"
            :y1="scale.sideTop.value"
            :y2="scale.height.value - 18"
          />
        </template>
      </g>
      <line class="keel" :x1="x(0)" :x2="x(mm.to)" :y1="y(0)" :y2="y(0)" />
      <line class="keel" :x1="x(0)" :x2="x(mm.to)" :y1="z(0)" :y2="z(0)" />
      <BodyDrawn
        v-for="(each, at) in bodies ?? []"
        :key="each.id"
        :body="each"
        :scale="scale"
        :chosen="at + surfaces.length === chosen"
        :fill="fills[each.id]"
        @choose="emit('choose', at + surfaces.length)"
      />
      <SurfaceShape
        v-for="(each, at) in surfaces"
        :key="each.id"
        :surface="each"
        :scale="scale"
        :chosen="at === chosen || chosen < 0"
        :untouched="untouched.has(each.id)"
        :fill="fills[each.id]"
        @choose="emit('choose', at)"
      />
      <rect
        v-if="range"
        class="range"
        :x="range.from"
        :width="Math.max(range.wide, 1)"
        :y="plan.top"
        :height="plan.bottom - plan.top"
      />
      <line
        v-if="claimed && beam?.neutral"
        class="np"
        :x1="x(beam.neutral.x_mm)"
        :x2="x(beam.neutral.x_mm)"
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
      <ColouredParts :parts="parts ?? []" :assessment="assessment" :scale="scale" />
      <g v-if="cg" class="cg" :transform="`translate(${x(cg.x_mm)} ${y(cg.y_mm)})`">
        <line class="drop" x1="0" x2="0" y1="0" :y2="plan.bottom - y(cg.y_mm)" />
        <ellipse
          :rx="Math.max(2 * cg.x_sd_mm * scale.perMm.value, 1.5)"
          :ry="Math.max(2 * cg.y_sd_mm * scale.perMm.value, 1.5)"
        />
        <path d="M-11 0 H11 M0 -11 V11" />
      </g>
      <TheStrip :flags="flags" :scale="scale" />
      <TheCorners
        v-if="surface"
        :surface="surface"
        :scale="scale"
        :svg="svg"
        @moved="(section, to) => emit('moved', section, to)"
        @kept="emit('kept')"
      />
      <BodyHandles
        v-if="body"
        :body="body"
        :scale="scale"
        :svg="svg"
        @moved="(frame, to) => emit('movedFrame', frame, to)"
        @kept="emit('keptFrame')"
      />
    </svg>
  </div>
</template>

<style scoped>
.drawn {
  min-width: 0;
}

svg {
  display: block;
}

.grid line {
  stroke: var(--line);
}

.keel {
  stroke: var(--oak);
  stroke-opacity: 0.75;
  stroke-width: 5;
}

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

.cg {
  pointer-events: none;
}

.cg ellipse {
  fill: var(--sea);
  fill-opacity: 0.3;
}

.cg path {
  stroke: var(--sea);
  stroke-width: 2.5;
}

.drop {
  stroke: var(--sea);
  stroke-width: 1;
}
</style>
