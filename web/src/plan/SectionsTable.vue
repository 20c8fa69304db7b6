<script setup lang="ts">
import type { Surface } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import type { Draft, Measure } from './useDraft'

/** The sections of a surface from its root outwards, each by four measures. */
defineProps<{ drawing: Draft; surface: Surface }>()

const { build } = useBuild()
const { units } = useUnits()

const MEASURES: { key: Measure; short: string; title: string }[] = [
  { key: 'x_le_mm', short: 'from nose', title: 'leading edge, from nose' },
  { key: 'y_mm', short: 'out', title: 'out from the middle' },
  { key: 'z_mm', short: 'up', title: 'up' },
  { key: 'chord_mm', short: 'chord', title: 'chord' },
]
const OF = { x_le_mm: 'station', y_mm: 'station', z_mm: 'height', chord_mm: 'chord' } as const
</script>

<template>
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
</template>

<style scoped>
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
