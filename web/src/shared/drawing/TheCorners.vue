<script setup lang="ts">
import { computed } from 'vue'
import type { Surface } from '../../api/client'
import TheHandle from './TheHandle.vue'
import type { Scale } from './useScale'

type Section = Surface['sections'][number]
export type To = Partial<Record<keyof Section, number>>

/** The corners of the surface that is worked on. */
const props = defineProps<{ surface: Surface; scale: Scale; svg: SVGSVGElement | undefined }>()
const emit = defineEmits<{ moved: [section: number, to: To]; kept: [] }>()

const upright = computed(() => props.surface.role === 'fin')
const corners = computed(() =>
  props.surface.sections.flatMap((s, section) => {
    const across = upright.value ? s.z_mm : s.y_mm
    return (['leading', 'trailing'] as const).map((edge) => {
      const along = s.x_le_mm + (edge === 'trailing' ? s.chord_mm : 0)
      return {
        key: `${section}-${edge}`,
        label: `${props.surface.name}, section ${section + 1}, ${edge} edge`,
        section,
        edge,
        along,
        across,
        x: props.scale.x(along),
        y: upright.value ? props.scale.z(across) : props.scale.y(across),
      }
    })
  }),
)
type Corner = (typeof corners.value)[number]

/** Where a corner went [mm]: the leading edge takes the section along, the trailing its chord. */
function place(corner: Corner, x: number, across: number) {
  const section = props.surface.sections[corner.section]
  if (!section) return
  const out = upright.value
    ? { z_mm: Math.round(across) }
    : corner.section === 0
      ? {}
      : { y_mm: Math.max(0, Math.round(across)) }
  const along =
    corner.edge === 'leading'
      ? { x_le_mm: Math.round(x) }
      : { chord_mm: Math.max(0, Math.round(x - section.x_le_mm)) }
  emit('moved', corner.section, { ...along, ...out })
}

function drag(corner: Corner, x: number, y: number) {
  const { back } = props.scale
  place(corner, back.x(x), upright.value ? back.z(y) : back.y(y))
}
</script>

<template>
  <TheHandle
    v-for="corner in corners"
    :key="corner.key"
    class="corner"
    :label="corner.label"
    :x="corner.x"
    :y="corner.y"
    :svg="svg"
    @to="(x, y) => drag(corner, x, y)"
    @by="(right, up) => place(corner, corner.along + right, corner.across + up)"
    @kept="emit('kept')"
  />
</template>
