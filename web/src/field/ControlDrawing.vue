<script setup lang="ts">
import { computed } from 'vue'
import { goesSideways, useFieldWords } from '../say/field'
import { useBuild } from '../shared/useBuild'
import { useField } from './useField'

/** The plane from above with its controls in it; what lies on a fin is drawn from the side. */
const { field, controls } = useField()
const { build, assessment } = useBuild()
const words = useFieldWords()

const fins = computed(
  () => new Set((build.value?.surfaces ?? []).filter((s) => s.role === 'fin').map((s) => s.id)),
)
const above = computed(() => (assessment.value?.outlines ?? []).filter((o) => o.role !== 'fin'))
const beside = computed(() =>
  (assessment.value?.outlines ?? []).filter((o) => o.role === 'fin' && !o.is_port),
)
const drawn = computed(() =>
  (field.value?.told.controls ?? []).flatMap((told) => {
    const control = controls.value.find((each) => each.id === told.id)
    return control ? [{ told, control, fin: fins.value.has(control.surface) }] : []
  }),
)
const flat = computed(() => drawn.value.filter((each) => !each.fin))
const upright = computed(() => drawn.value.filter((each) => each.fin))

type Corners = [number, number][]
const box = (all: Corners[], flip: boolean) => {
  const xs = all.flat().map((each) => each[0])
  const ys = all.flat().map((each) => (flip ? -each[1] : each[1]))
  const room = 30
  const x = Math.min(...xs) - room
  const y = Math.min(...ys) - room
  return `${x} ${y} ${Math.max(...xs) - x + room} ${Math.max(...ys) - y + room}`
}
const fromAbove = computed(() =>
  box(
    above.value.map((each) => each.corners as Corners),
    false,
  ),
)
const fromBeside = computed(() =>
  box(
    beside.value.map((each) => each.side as Corners),
    true,
  ),
)
const path = (corners: Corners, flip = false) =>
  corners.map((each) => `${each[0]},${flip ? -each[1] : each[1]}`).join(' ')
const say = computed(() =>
  drawn.value
    .map(
      ({ control }) =>
        `${control.name} ${words.setting(control.set_mm, goesSideways(control, fins.value))}`,
    )
    .join(', '),
)
</script>

<template>
  <div v-if="above.length">
    <svg :viewBox="fromAbove" role="img" :aria-label="`From above, nose left. ${say}`">
      <polygon
        v-for="each in above"
        :key="each.id"
        :points="path(each.corners as Corners)"
        class="surface"
      />
      <template v-for="{ told, control } in flat" :key="told.id">
        <polygon
          v-for="(half, k) in told.corners"
          :key="k"
          :points="path(half as Corners)"
          class="control"
          :class="{ set: control.set_mm }"
        />
      </template>
    </svg>
    <svg
      v-if="upright.length"
      :viewBox="fromBeside"
      class="fin"
      role="img"
      aria-label="The fin from the side"
    >
      <polygon
        v-for="each in beside"
        :key="each.id"
        :points="path(each.side as Corners, true)"
        class="surface"
      />
      <polygon
        v-for="{ told, control } in upright"
        :key="told.id"
        :points="path(told.corners[0] as Corners, true)"
        class="control"
        :class="{ set: control.set_mm }"
      />
    </svg>
    <ul class="small">
      <li v-for="{ control } in drawn" :key="control.id">
        {{ control.name }}: {{ words.setting(control.set_mm, goesSideways(control, fins)) }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
svg {
  width: 100%;
  max-height: 320px;
}

.fin {
  max-height: 130px;
}

.surface {
  fill: var(--tag);
  stroke: var(--ink);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}

.control {
  fill: var(--brass);
  fill-opacity: 0.55;
  stroke: var(--ink);
  vector-effect: non-scaling-stroke;
}

.set {
  fill: var(--sea);
}

ul {
  margin: 4px 0 0;
  padding-left: 18px;
  list-style: disc;
}
</style>
