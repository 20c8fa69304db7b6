<script setup lang="ts">
import { computed } from 'vue'
import type { Lot } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'

/** How large one of a lot is, how many are at hand, what one costs and what becomes offcuts. */
const props = defineProps<{ lot: Lot; onDescribe: (patch: Partial<Lot>) => void }>()

const { units } = useUnits()
const isSheet = computed(() => props.lot.unit === 'dm2')
</script>

<template>
  <template v-if="lot.unit !== 'piece' && lot.holds_g === null">
    <dt>
      {{
        isSheet ? 'one sheet' : lot.kind === 'adhesive' ? 'one stick, as a bead' : 'one roll or rod'
      }}
    </dt>
    <dd>
      <QuantityCell
        :value="lot.length_mm"
        kind="length"
        :unit="units.length.name"
        :base="units.length.base"
        optional
        label="Length of one"
        @kept="onDescribe({ length_mm: $event })"
      />
      <template v-if="isSheet">
        ×
        <QuantityCell
          :value="lot.width_mm"
          kind="length"
          :unit="units.length.name"
          :base="units.length.base"
          optional
          label="Width of one"
          @kept="onDescribe({ width_mm: $event })"
        />
      </template>
      <span class="faint small">{{ units.length.name }}</span>
    </dd>
  </template>
  <dt>at hand</dt>
  <dd>
    <QuantityCell
      :value="lot.stock"
      kind="number"
      optional
      label="How many are at hand"
      @kept="onDescribe({ stock: $event })"
    />
    <span class="faint small">at</span>
    <QuantityCell
      :value="lot.price"
      kind="number"
      optional
      label="Price of one"
      @kept="onDescribe({ price: $event })"
    />
    <span class="faint small">each</span>
  </dd>
  <dt>with offcuts</dt>
  <dd>
    <span class="faint small">×</span>
    <QuantityCell
      :value="lot.waste"
      kind="number"
      optional
      label="Waste factor"
      @kept="onDescribe({ waste: $event })"
    />
    <span v-if="lot.waste === null" class="faint small">as usual for its kind</span>
  </dd>
</template>
