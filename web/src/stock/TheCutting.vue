<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { CutPlan } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { fixed, plainly, useUnits } from '../shared/units'
import CutParts from './CutParts.vue'
import CutSheet from './CutSheet.vue'
import { useCutting } from './useCutting'

const { units, quantity } = useUnits()
const cutting = useCutting()
const { knife, parts, chosen, plans, isOld, gone, wrong, lay, stop, hand } = cutting

const lit = ref<string | null>(null)
const room = ref<HTMLElement>()
const { width } = useElementSize(room)
/** One scale for all sheets: the longest fills its column. */
const scale = computed(() => {
  const longest = Math.max(...plans.value.map((plan) => plan.length_mm), 1)
  const columns = width.value > 900 && plans.value.length > 1 ? 2 : 1
  const wide = Math.min((width.value - 26 * (columns - 1)) / columns, 620)
  return Math.max(wide, 200) / longest
})
const length = computed(() => units.value.length)
const sides = (plan: CutPlan) =>
  `${quantity(plan.length_mm, 'length')} by ${quantity(plan.width_mm, 'length')}`
const many = (count: number) => (count === 1 ? 'One sheet' : `${count} sheets`)
</script>

<template>
  <section class="cutting" aria-label="Cutting">
    <form class="ask" @submit.prevent="lay">
      <label
        >the knife takes
        <QuantityCell
          :value="knife.kerf"
          kind="length"
          label="Kerf"
          :unit="length.name"
          :base="length.base"
          :least="0"
          :most="100"
          :on-kept="(value) => (knife.kerf = value ?? 0)"
        />
        {{ length.name }}</label
      >
      <label
        >stay off the edge by
        <QuantityCell
          :value="knife.margin"
          kind="length"
          label="Margin at the sheet’s edge"
          :unit="length.name"
          :base="length.base"
          :least="0"
          :most="500"
          :on-kept="(value) => (knife.margin = value ?? 0)"
        />
        {{ length.name }}</label
      >
      <v-btn v-if="gone === null" class="press--main" type="submit" :disabled="!chosen.length">
        {{ plans.length ? 'Lay them again' : 'Lay them on sheets' }}
      </v-btn>
      <v-btn v-else class="press--main" type="button" @click="stop">Stop: this will do</v-btn>
      <v-progress-linear
        v-if="gone !== null"
        class="gone"
        :model-value="100 * gone"
        aria-label="How much of the time is gone"
      />
    </form>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <p v-if="!parts.length" class="faint">
      No part is cut out of a sheet yet. Give a part an area of a sheet on the Plan, or read a
      drawing.
    </p>
    <p v-if="isOld && gone === null" class="faint" role="status">
      The parts or the sheets have changed since these were laid.
    </p>

    <div ref="room" class="plans">
      <section v-for="plan in plans" :key="plan.lot" :aria-label="plan.name">
        <h3>{{ plan.name }}, {{ sides(plan) }}</h3>
        <p role="status">
          <strong>{{ many(plan.sheets) }}</strong>; the areas alone would need {{ plan.least }}.
          {{ plan.at_hand ? `At hand ${plainly(plan.at_hand)}` : 'None at hand'
          }}{{ plan.to_buy ? `, ${plan.to_buy} to buy` : ', enough'
          }}{{ plan.cost_to_buy ? ` for ${fixed(plan.cost_to_buy, 2)}` : '' }}. Of the last sheet
          {{ quantity(plan.left_mm, 'length') }} of its length stay whole.
        </p>
        <p v-for="join in plan.joins" :key="join.part" class="asked">
          {{ join.name }} is {{ quantity(join.length_mm, 'length') }} by
          {{ quantity(join.width_mm, 'length') }}, larger than a sheet: it is laid in pieces, joined
          <template v-if="join.at_x_mm.length"
            >at {{ join.at_x_mm.map((at) => quantity(at, 'length')).join(' and ') }} of its
            length</template
          ><template v-if="join.at_y_mm.length">
            {{ join.at_x_mm.length ? 'and ' : '' }}at
            {{ join.at_y_mm.map((at) => quantity(at, 'length')).join(' and ') }} of its
            width</template
          >. Tape or a doubler over the joint is not counted yet.
        </p>
        <p v-for="each in plan.odd" :key="each.part" class="asked">
          {{ each.name }}: its outline is {{ quantity(each.cut_dm2, 'area') }}, its weight counts
          {{ quantity(each.counted_dm2, 'area') }}.
        </p>
        <div class="sheets">
          <CutSheet
            v-for="number in plan.sheets"
            :key="number"
            :plan="plan"
            :number="number - 1"
            :scale="scale"
            :lit="lit"
            @look="lit = $event"
          />
        </div>
      </section>
    </div>
    <p v-if="plans.length" class="files">
      to cut along:
      <v-verb @click="hand('svg')">SVG</v-verb>
      <v-verb @click="hand('dxf')">DXF</v-verb>
      <v-verb @click="hand('pdf')"> at full size on paper </v-verb>
      <v-verb @click="hand('csv')">the cut list as CSV</v-verb>
    </p>
    <p class="faint small">
      A fresh blade along a metal straight edge, fingers behind it. A hot wire gives off fumes:
      ventilate.
    </p>

    <CutParts v-if="parts.length" :cutting="cutting" :lit="lit" @look="lit = $event" />
  </section>
</template>

<style scoped>
.cutting,
.plans,
.plans > section {
  display: grid;
  gap: 12px;
}

.plans {
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 440px), 1fr));
  gap: 26px;
  align-items: start;
}

.ask {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px 22px;
}

.ask label :deep(.cell) {
  width: 70px;
}

.gone {
  flex-basis: 100%;
}

.asked {
  border-left: 3px solid var(--brass);
  padding-left: 10px;
}

.sheets {
  display: flex;
  flex-wrap: wrap;
  gap: 20px;
}

.files {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
}
</style>
