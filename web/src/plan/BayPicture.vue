<script setup lang="ts">
import { computed } from 'vue'
import type { Part } from '../api/client'
import type { Bay } from './useFit'

/** A bay from the side, on its own scale, with what sits in it where it sits. */
const props = defineProps<{ bay: Bay; parts: Part[] }>()

const ROOM = 12
const boxes = computed(() =>
  props.parts.flatMap((part) => {
    const { fit, station } = part
    if (!fit?.length_mm || !fit.height_mm || !station || station.reference !== 'nose') return []
    return [
      {
        id: part.id,
        name: part.name,
        x: station.x_mm - fit.length_mm / 2,
        y: -(station.z_mm + fit.height_mm / 2),
        width: fit.length_mm,
        height: fit.height_mm,
      },
    ]
  }),
)
const inner = computed(() => ({
  x: props.bay.x_mm,
  y: -(props.bay.z_mm + props.bay.height_mm / 2),
  width: props.bay.length_mm,
  height: props.bay.height_mm,
}))
const view = computed(() => {
  const all = [inner.value, ...boxes.value]
  const left = Math.min(...all.map((each) => each.x)) - ROOM
  const top = Math.min(...all.map((each) => each.y)) - ROOM
  const right = Math.max(...all.map((each) => each.x + each.width)) + ROOM
  const low = Math.max(...all.map((each) => each.y + each.height)) + ROOM
  return { box: `${left} ${top} ${right - left} ${low - top}`, ratio: (right - left) / (low - top) }
})
</script>

<template>
  <svg
    :viewBox="view.box"
    :style="{ aspectRatio: view.ratio }"
    role="img"
    :aria-label="`${bay.name} from the side, with ${boxes.map((each) => each.name).join(', ') || 'nothing in it'}`"
  >
    <rect class="bay" v-bind="inner" />
    <rect v-for="{ id, name, ...at } in boxes" :key="id" class="thing" v-bind="at">
      <title>{{ name }}</title>
    </rect>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 420px;
  max-height: 130px;
}

.bay {
  fill: var(--paper);
  stroke: var(--oak);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}

.thing {
  fill: var(--tag);
  fill-opacity: 0.7;
  stroke: var(--ink);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
</style>
