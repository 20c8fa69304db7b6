<script setup lang="ts">
import type { Control, ControlTold, NewControl } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { fixed, useUnits } from '../shared/units'

/** How far a control goes each way, and the holes that its rod hangs in. */
defineProps<{
  each: Control
  ways: string[]
  drawn: ControlTold | undefined
  edit: (patch: Partial<NewControl>) => void
}>()

const { units } = useUnits()
</script>

<template>
  <p v-for="(way, k) in ways" :key="way" class="row">
    <label
      >{{ way }}
      <QuantityCell
        :value="k ? each.down_mm : each.up_mm"
        kind="length"
        :unit="units.length.name"
        :base="units.length.base"
        :digits="units.length.base === 1 ? 1 : 3"
        optional
        :label="`${each.name}: travel ${way}`"
        @kept="(mm) => edit(k ? { down_mm: mm } : { up_mm: mm })"
      />
      {{ units.length.name }}</label
    >
    <label
      >or
      <QuantityCell
        :value="(k ? drawn?.down_deg : drawn?.up_deg) ?? null"
        kind="number"
        :least="0"
        :most="45"
        :digits="1"
        optional
        :label="`${each.name}: travel ${way}, degrees`"
        @kept="(deg) => deg !== null && edit(k ? { down_deg: deg } : { up_deg: deg })"
      />°</label
    >
  </p>
  <p class="row">
    <label
      >arm hole
      <QuantityCell
        :value="each.arm_mm"
        kind="length"
        :unit="units.length.name"
        :base="units.length.base"
        optional
        :label="`${each.name}: arm hole`"
        @kept="(mm) => edit({ arm_mm: mm })"
    /></label>
    <label
      >horn hole
      <QuantityCell
        :value="each.horn_mm"
        kind="length"
        :unit="units.length.name"
        :base="units.length.base"
        optional
        :label="`${each.name}: horn hole`"
        @kept="(mm) => edit({ horn_mm: mm })"
      />
      {{ units.length.name }}</label
    >
    <span v-if="drawn?.ratio != null" class="small"
      >1 : {{ fixed(1 / drawn.ratio, 2) }}, arm to horn</span
    >
    <v-checkbox-btn
      v-if="each.kind === 'rudder'"
      :model-value="each.with_aileron"
      label="goes with aileron"
      @update:model-value="edit({ with_aileron: $event })"
    />
  </p>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
}

.row :deep(.cell) {
  width: 64px;
}
</style>
