<script setup lang="ts">
import { computed } from 'vue'
import type { Surface } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import MakeParts from './MakeParts.vue'
import type { Draft, Measure } from './useDraft'
import PickList from '../shared/PickList.vue'
import { asSaid, titled } from '../shared/choices'

const PROFILES = titled({
  '': 'as usual',
  flat: 'flat plate',
  stepped: 'stepped',
  folded: 'folded, cambered',
})

const props = defineProps<{ drawing: Draft }>()
const { build } = useBuild()
const { units } = useUnits()

const MEASURES: { key: Measure; short: string; title: string }[] = [
  { key: 'x_le_mm', short: 'from nose', title: 'leading edge, from nose' },
  { key: 'y_mm', short: 'out', title: 'out from the middle' },
  { key: 'z_mm', short: 'up', title: 'up' },
  { key: 'chord_mm', short: 'chord', title: 'chord' },
]
const OF = { x_le_mm: 'station', y_mm: 'station', z_mm: 'height', chord_mm: 'chord' } as const
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
    <v-table>
      <thead class="faint">
        <tr>
          <th v-for="measure in MEASURES" :key="measure.key">{{ measure.short }}</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="(section, k) in surface.sections" :key="k">
          <td v-for="measure in MEASURES" :key="measure.key">
            <QuantityCell
              :value="section[measure.key]"
              :kind="measure.key === 'chord_mm' ? 'length' : 'station'"
              :measure="OF[measure.key]"
              :build="build?.id"
              :label="`${surface.name}, section ${k + 1}, ${measure.title}`"
              :unit="units.length.name"
              :base="units.length.base"
              @typed="drawing.typed(k, measure.key, $event)"
              @kept="drawing.kept(k, measure.key, $event)"
            />
          </td>
          <td>
            <v-verb
              v-if="surface.sections.length > 2"
              class="bare faint drop"
              :aria-label="`Remove section ${k + 1}`"
              @click="drawing.dropSection(k)"
            >
              ✕
            </v-verb>
          </td>
        </tr>
      </tbody>
    </v-table>
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
    <p v-if="!isFin" class="line">
      <label
        >shaped
        <PickList
          :model-value="surface.profile ?? ''"
          :items="PROFILES"
          :aria-label="`How ${surface.name} is shaped`"
          @update:model-value="drawing.set({ profile: ($event || null) as Surface['profile'] })"
      /></label>
      <label
        >thick
        <QuantityCell
          :value="surface.thickness_mm"
          kind="length"
          optional
          :label="`${surface.name}, thickness`"
          :unit="units.length.name"
          :base="units.length.base"
          @kept="drawing.set({ thickness_mm: $event })"
      /></label>
      <label
        >incidence
        <QuantityCell
          :value="surface.incidence_deg"
          kind="number"
          :label="`${surface.name}, incidence in degrees`"
          @kept="drawing.set({ incidence_deg: $event ?? 0 })"
        />°</label
      >
    </p>
    <p v-else class="line">
      <v-checkbox-btn
        :model-value="surface.twin"
        label="one on each side"
        @update:model-value="drawing.set({ twin: $event })"
      />
    </p>
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

.line .pick {
  max-width: 170px;
}

.margin-note {
  border-left: 3px solid var(--line);
  padding-left: 8px;
  color: var(--faint);
}

.v-table {
  width: 100%;
}

th {
  font-weight: 400;
  font-size: 13px;
  text-align: left;
  padding: 2px 0 2px 6px;
}

td {
  padding: 2px 6px 2px 0;
}

td :deep(.cell) {
  width: 100%;
}

.drop {
  min-width: 24px;
  min-height: 24px;
}
</style>
