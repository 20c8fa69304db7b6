<script setup lang="ts">
import { computed } from 'vue'
import type { Assessment, Part } from '../../api/client'
import { COLOURS } from '../../say/colours'
import type { Scale } from './useScale'

/** What has a colour, where it sits, from above. */
const props = defineProps<{ parts: Part[]; assessment: Assessment | undefined; scale: Scale }>()

const SIDE = 9
const marks = computed(() => {
  const places = new Map(props.assessment?.parts.map((each) => [each.id, each.x_from_nose_mm]))
  return props.parts.flatMap((part) => {
    const from = places.get(part.id)
    if (!part.colour || !part.station || typeof from !== 'number') return []
    const at = { x: props.scale.x(from), y: props.scale.y(part.station.y_mm) }
    return [
      { id: part.id, ...at, fill: COLOURS[part.colour], says: `${part.name}, ${part.colour}` },
    ]
  })
})
</script>

<template>
  <rect
    v-for="each in marks"
    :key="each.id"
    class="part"
    :x="each.x - SIDE / 2"
    :y="each.y - SIDE / 2"
    :width="SIDE"
    :height="SIDE"
    :fill="each.fill"
    role="img"
    :aria-label="each.says"
  >
    <title>{{ each.says }}</title>
  </rect>
</template>

<style scoped>
.part {
  stroke: var(--ink);
  stroke-width: 1;
}
</style>
