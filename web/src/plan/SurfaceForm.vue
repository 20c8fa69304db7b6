<script setup lang="ts">
import { computed } from 'vue'
import type { Surface } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { useUnits } from '../shared/units'
import MakeParts from './MakeParts.vue'
import SectionsTable from './SectionsTable.vue'
import SurfaceShape from './SurfaceShape.vue'
import type { Draft } from './useDraft'
import PickList from '../shared/PickList.vue'
import { asSaid } from '../shared/choices'

const props = defineProps<{ drawing: Draft }>()
const { units } = useUnits()

const ROLES = ['wing', 'tail', 'canard', 'fin'] as const

const surface = computed(() => props.drawing.surface.value)
const many = computed(() => props.drawing.many.value)
const outline = computed(() =>
  props.drawing.shown.value?.outlines.find((each) => each.id === surface.value?.id),
)
const isFin = computed(() => surface.value?.role === 'fin')

function shaped(key: 'span_mm' | 'chord_mm' | 'area_dm2' | 'tip_mm', value: number | null) {
  if (value) props.drawing.shape({ [key]: value })
}
</script>

<template>
  <section v-if="surface" class="form" :aria-label="surface.name" tabindex="-1">
    <div class="head">
      <TextCell
        class="name"
        :value="surface.name"
        :label="`Name of ${surface.name}`"
        @kept="drawing.set({ name: $event })"
      />
      <PickList
        :model-value="surface.role"
        :items="asSaid(ROLES)"
        :aria-label="`What ${surface.name} is`"
        @update:model-value="drawing.set({ role: $event as Surface['role'] })"
      />
      <span class="faint small which">
        <v-verb class="bare" aria-label="The surface before" @click="drawing.step(-1)">
          <kbd>[</kbd>
        </v-verb>
        {{ drawing.chosen.value + 1 }} of {{ many }}
        <v-verb class="bare" aria-label="The next surface" @click="drawing.step(1)">
          <kbd>]</kbd>
        </v-verb>
      </span>
    </div>
    <p v-if="outline?.untouched" class="margin-note small">
      Still as it came with the layout: not yet yours.
    </p>
    <p class="line three">
      <label
        >{{ isFin ? 'height' : 'span' }}
        <QuantityCell
          :value="outline?.span_mm ?? null"
          kind="length"
          :measure="surface.role === 'wing' ? 'span' : undefined"
          :label="`${surface.name}, ${isFin ? 'height' : 'span'}`"
          :unit="units.length.name"
          :base="units.length.base"
          @kept="shaped('span_mm', $event)"
      /></label>
      <label
        >chord
        <QuantityCell
          :value="outline?.chord_mm ?? null"
          kind="length"
          measure="chord"
          :label="`${surface.name}, chord at the root`"
          :unit="units.length.name"
          :base="units.length.base"
          @kept="shaped('chord_mm', $event)"
      /></label>
      <label
        >area, {{ units.area.name }}
        <QuantityCell
          :value="outline?.area_dm2 ?? null"
          kind="area"
          :label="`${surface.name}, area`"
          :unit="units.area.name"
          :base="units.area.base"
          @kept="shaped('area_dm2', $event)"
      /></label>
    </p>
    <SectionsTable :drawing="drawing" :surface="surface" />
    <p class="line">
      <v-verb @click="drawing.addSection()"> one more section </v-verb>
      <label
        >tip panel along its slope
        <QuantityCell
          :value="outline?.tip_mm ?? null"
          kind="length"
          :digits="1"
          :label="`${surface.name}, tip panel along its slope`"
          :unit="units.length.name"
          :base="units.length.base"
          @kept="shaped('tip_mm', $event)"
      /></label>
    </p>
    <SurfaceShape :drawing="drawing" :surface="surface" />
    <MakeParts
      :id="surface.id"
      :drawing="drawing"
      :name="surface.name"
      :usual-layers="outline?.layers"
    />
    <p>
      <v-verb class="faint small" @click="drawing.remove()"> remove {{ surface.name }} </v-verb>
    </p>
  </section>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
  min-width: 0;
}

.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  border-bottom: 1px solid var(--ink);
}

.head .name {
  flex: 1 1 90px;
  width: 90px;
  min-width: 0;
  border: 0;
  background: none;
  font-size: 18px;
  font-weight: 650;
  padding: 0;
}

.which {
  white-space: nowrap;
}

.which button {
  min-width: 28px;
  min-height: 28px;
}

.three {
  display: grid !important;
  grid-template-columns: repeat(3, minmax(0, 1fr));
}

.three label {
  display: grid;
}

.three :deep(.cell) {
  width: 100% !important;
}

.head .pick {
  --entry-height: 28px;
  font-size: 13px;
}

.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  font-size: 14px;
}

.line :deep(.cell) {
  width: 64px;
}

.margin-note {
  border-left: 3px solid var(--line);
  padding-left: 8px;
  color: var(--faint);
}
</style>
