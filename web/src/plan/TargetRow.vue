<script setup lang="ts">
import { computed } from 'vue'
import type { Target, TargetKind } from '../api/client'
import { METRICS } from '../say/metrics'
import PickList from '../shared/PickList.vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { useTarget } from './useTarget'

/** One thing that is aimed at: the least and the most of it, in its unit, and where they come from. */
const props = defineProps<{ kind: TargetKind }>()

const { build } = useBuild()
const { named, aim, measureIn } = useTarget()
const { units } = useUnits()

const BALANCE_UNITS = [
  { value: 'percent_mac', title: '% MAC' },
  { value: 'mm_from_leading_edge', title: 'from leading edge' },
  { value: 'mm_from_nose', title: 'from nose' },
] as const
const ENDS = ['low', 'high'] as const

const target = computed(() => build.value?.targets.find((each) => each.kind === props.kind))
const metric = computed(() => METRICS[props.kind])
/** A length is read in any unit of length, and shown in the one that is chosen. */
const isLength = computed(
  () => props.kind === 'balance' && (target.value?.balance_unit ?? 'percent_mac') !== 'percent_mac',
)
const unit = computed(() => {
  const { shown } = metric.value
  if (shown) return units.value[shown]
  return isLength.value ? units.value.length : undefined
})
</script>

<template>
  <tr>
    <th scope="row">{{ metric.title }}</th>
    <td v-for="end in ENDS" :key="end">
      <QuantityCell
        :value="target?.[end] ?? null"
        :kind="isLength ? 'station' : metric.reads"
        :label="named(kind, end)"
        :unit="unit?.name"
        :base="unit?.base"
        optional
        @kept="aim(kind, end, $event)"
      />
    </td>
    <td class="unit">
      <PickList
        v-if="kind === 'balance'"
        :items="BALANCE_UNITS"
        :model-value="target?.balance_unit ?? 'percent_mac'"
        aria-label="Balance measured in"
        :disabled="!target"
        @update:model-value="measureIn($event as Target['balance_unit'])"
      />
      <template v-else>{{ unit?.name ?? metric.unit }}</template>
    </td>
    <td class="from faint">
      {{
        target?.source ?? (kind === 'auw' ? 'none set; check the local legal limit' : 'none set')
      }}
    </td>
  </tr>
</template>

<style scoped>
.pick {
  --entry-height: 30px;
  font-size: 13px;
  max-width: 190px;
}

@media (max-width: 700px) {
  .pick {
    max-width: 98px;
  }
}
</style>
