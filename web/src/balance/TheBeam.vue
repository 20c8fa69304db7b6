<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import SavePicture from '../shared/SavePicture.vue'
import DrawnPlane from '../shared/drawing/DrawnPlane.vue'
import TheStrip from '../shared/drawing/TheStrip.vue'
import { ROW } from '../shared/drawing/useScale'
import { useBuild } from '../shared/useBuild'
import BalanceFields from './BalanceFields.vue'
import BeamHead from './BeamHead.vue'
import HungMass from './HungMass.vue'
import TippingPlane from './TippingPlane.vue'
import { UNDER, useBeamScale } from './useBeamScale'
import { useHangings } from './useHangings'
import { useHung } from './useHung'
import { useStationFlags } from './useStationFlags'
import { useTilt } from './useTilt'
import { useTrial } from './useTrial'

const { build, assessment, loadout } = useBuild()
const { move, keep, drop } = useTrial()
const hung = useHung()

const holder = ref<HTMLElement>()
const svg = ref<SVGSVGElement>()
const { width } = useElementSize(holder)
const scale = useBeamScale(width, hung)

/** Where it tips: at the middle of its range, or the one end that is set. */
const edge = computed(() => {
  const { low_mm: low, high_mm: high } = assessment.value?.beam ?? {}
  if (typeof low === 'number' && typeof high === 'number') return (low + high) / 2
  return low ?? high ?? loadout.value?.cg?.x_mm ?? null
})
const { tip, room } = useTilt(scale, edge)

const { placed, depth } = useHangings(hung, scale, tip)
const flags = useStationFlags()
const foot = computed(() => depth.value + flags.value.length * ROW + 30)
const strip = {
  x: scale.x,
  plan: computed(() => ({ bottom: depth.value })),
  sideTop: foot,
  ticks: scale.ticks,
}
const count = computed(() => hung.value.reduce((sum, each) => sum + each.parts.length, 0))

function toMm(event: PointerEvent): number {
  const box = svg.value?.getBoundingClientRect()
  return box ? scale.back(((event.clientX - box.left) * scale.width.value) / box.width) : 0
}
</script>

<template>
  <section aria-label="Beam">
    <BeamHead :masses="count" />
    <div ref="holder">
      <svg
        v-if="width"
        ref="svg"
        :viewBox="`0 ${-room} ${scale.width.value} ${foot + 4 + room}`"
        role="group"
        aria-label="The plane on its beam"
      >
        <BalanceFields :scale="scale" :depth="depth" />
        <TippingPlane :scale="scale" :tip="tip" />
        <polygon
          v-if="edge !== null"
          class="knife"
          :points="`${tip.x},${UNDER} ${tip.x - 15},${UNDER + 26} ${tip.x + 15},${UNDER + 26}`"
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
svg {
  display: block;
  width: 100%;
  height: auto;
  touch-action: pan-y;
}

.knife {
  fill: var(--ink);
}

.string {
  stroke: var(--ink);
}

.above {
  margin-top: 8px;
}
</style>
