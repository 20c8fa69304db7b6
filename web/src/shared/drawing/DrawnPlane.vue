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
import TheMarks from './TheMarks.vue'
import TheSpot from './TheSpot.vue'
import TheStrip from './TheStrip.vue'
import { useMarks } from './useMarks'
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

const marks = useMarks(toRef(props, 'assessment'), toRef(props, 'loadout'))
const { flags } = marks
const untouched = computed(
  () => new Set(props.assessment?.outlines.filter((each) => each.untouched).map((each) => each.id)),
)

const scale = useScale(
  toRef(props, 'surfaces'),
  { width, height },
  computed(() => flags.value.length),
  computed(() => props.bodies ?? []),
)
const { x, y, z, mm, plan } = scale
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
      <TheMarks :marks="marks" :scale="scale" />
      <ColouredParts :parts="parts ?? []" :assessment="assessment" :scale="scale" />
      <TheSpot v-if="loadout?.cg" :cg="loadout.cg" :scale="scale" />
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
</style>
