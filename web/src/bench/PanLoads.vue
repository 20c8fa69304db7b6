<script setup lang="ts">
import { computed } from 'vue'
import type { Lot } from '../api/client'
import { plainly, useUnits } from '../shared/units'
import { useUsualSample } from '../shared/usualSample'
import { useBuild } from '../shared/useBuild'
import QuantityCell from '../shared/QuantityCell.vue'
import { useBench } from './useBench'

const { build } = useBuild()
const { pan, count, amount } = useBench()

const { units } = useUnits()
const shown = (unit: Lot['unit']) =>
  ({ dm2: units.value.area, m: units.value.run, piece: undefined })[unit]
const usual = useUsualSample()
/** What the figure is counted in, and how much of that a usual square is. */
function counted(unit: Lot['unit']): string {
  const { name = 'pieces', base = 1 } = shown(unit) ?? {}
  const { called, amount } = usual(unit)
  return unit === 'dm2' ? `${name} (${called} is ${plainly(amount / base, 3)})` : name
}

const KINDS = { dm2: 'area', m: 'run', piece: 'pieces' } as const

const several = computed(() =>
  pan.value.loads.flatMap((load) => {
    const part = build.value?.parts.find((each) => each.id === load.part)
    return part && (part.pieces > 1 || load.count !== 1) ? [{ ...load, part }] : []
  }),
)
const samples = computed(() =>
  pan.value.samples.flatMap((sample) => {
    const lot = build.value?.lots.find((each) => each.id === sample.lot)
    return lot ? [{ ...sample, lot }] : []
  }),
)

const pieces = (id: string, fitted: number, given: number | null) => {
  if (given) count(id, given / fitted)
}
</script>

<template>
  <div v-if="several.length || samples.length" class="loads">
    <label v-for="load in several" :key="load.part.id">
      {{ load.part.name }}: pieces on the pan
      <QuantityCell
        kind="pieces"
        :value="load.count * load.part.pieces"
        :digits="3"
        :label="`${load.part.name}: pieces on the pan`"
        @kept="pieces(load.part.id, load.part.pieces, $event)"
      />
      <span class="faint">of which {{ load.part.pieces }} fitted</span>
    </label>
    <label v-for="sample in samples" :key="sample.lot.id">
      {{ sample.lot.name }}: on the pan
      <QuantityCell
        :kind="KINDS[sample.lot.unit]"
        :value="sample.amount"
        :unit="shown(sample.lot.unit)?.name"
        :base="shown(sample.lot.unit)?.base"
        :digits="3"
        :label="`${sample.lot.name}: on the pan`"
        @kept="$event && amount(sample.lot.id, $event)"
      />
      <span class="faint">{{ counted(sample.lot.unit) }}</span>
    </label>
  </div>
</template>

<style scoped>
.loads {
  display: grid;
  gap: 6px;
  margin-top: 8px;
  font-size: 13px;
}

label {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}

.cell {
  width: 64px;
}
</style>
