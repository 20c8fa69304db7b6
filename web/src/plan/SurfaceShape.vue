<script setup lang="ts">
import type { Surface } from '../api/client'
import PickList from '../shared/PickList.vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { titled } from '../shared/choices'
import { useUnits } from '../shared/units'
import type { Draft } from './useDraft'

/** How a surface is made: its profile, thickness and incidence; of a fin, whether there are two. */
defineProps<{ drawing: Draft; surface: Surface }>()

const { units } = useUnits()
const PROFILES = titled({
  '': 'as usual',
  flat: 'flat plate',
  stepped: 'stepped',
  folded: 'folded, cambered',
})
</script>

<template>
  <p v-if="surface.role !== 'fin'" class="line">
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
</template>

<style scoped>
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
</style>
