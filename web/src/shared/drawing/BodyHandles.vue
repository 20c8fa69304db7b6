<script setup lang="ts">
import { computed } from 'vue'
import type { Body } from '../../api/client'
import TheHandle from './TheHandle.vue'
import type { Scale } from './useScale'

export type FrameTo = Partial<Body['frames'][number]>

/** The frames of the body that is worked on: its width from above, top and bottom from the side. */
const props = defineProps<{ body: Body; scale: Scale; svg: SVGSVGElement | undefined }>()
const emit = defineEmits<{ moved: [frame: number, to: FrameTo]; kept: [] }>()

const handles = computed(() =>
  props.body.frames.flatMap((frame, at) => {
    const edges = {
      side: props.body.y_mm + frame.width_mm / 2,
      top: frame.z_mm + frame.height_mm / 2,
      bottom: frame.z_mm - frame.height_mm / 2,
    }
    return (['side', 'top', 'bottom'] as const).map((edge) => ({
      key: `${at}-${edge}`,
      label: `${props.body.name}, frame ${at + 1}, ${edge}`,
      at,
      edge,
      frame,
      along: frame.x_mm,
      across: edges[edge],
      x: props.scale.x(frame.x_mm),
      y: edge === 'side' ? props.scale.y(edges[edge]) : props.scale.z(edges[edge]),
    }))
  }),
)
type Handle = (typeof handles.value)[number]

function place(handle: Handle, x: number, across: number) {
  const { frame, edge } = handle
  const to: FrameTo = { x_mm: Math.round(x) }
  if (edge === 'side') to.width_mm = Math.max(1, 2 * Math.round(across - props.body.y_mm))
  else {
    const other = frame.z_mm + (edge === 'top' ? -1 : 1) * (frame.height_mm / 2)
    const high = Math.max(1, Math.round(edge === 'top' ? across - other : other - across))
    to.height_mm = high
    to.z_mm = other + (edge === 'top' ? 1 : -1) * (high / 2)
  }
  emit('moved', handle.at, to)
}

function drag(handle: Handle, x: number, y: number) {
  const { back } = props.scale
  place(handle, back.x(x), handle.edge === 'side' ? back.y(y) : back.z(y))
}
</script>

<template>
  <TheHandle
    v-for="handle in handles"
    :key="handle.key"
    class="corner"
    :label="handle.label"
    :x="handle.x"
    :y="handle.y"
    :svg="svg"
    @to="(x, y) => drag(handle, x, y)"
    @by="(right, up) => place(handle, handle.along + right, handle.across + up)"
    @kept="emit('kept')"
  />
</template>
