<script setup lang="ts">
import { named } from '../shared/choices'
import PickList from '../shared/PickList.vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { useBeginnings } from '../shared/useBeginnings'
import { useUnits } from '../shared/units'
import type { useSpanChord } from './useSpanChord'

type SpanChord = ReturnType<typeof useSpanChord>

/** What the plane is wanted for, and what it may be made of. */
defineProps<{
  sheets: SpanChord['sheets']['value']
  things: SpanChord['things']['value']
  chosen: SpanChord['chosen']['value']
}>()
const wants = defineModel<SpanChord['wants']>({ required: true })
const emit = defineEmits<{ press: [thing: string]; begin: [] }>()

const { units, quantity } = useUnits()
const beginnings = useBeginnings()
</script>

<template>
  <form class="wants" @submit.prevent="emit('begin')">
    <label
      >for
      <PickList
        v-model="wants.purpose"
        :items="named(beginnings?.purposes)"
        aria-label="What it is for"
    /></label>
    <label
      >laid out as
      <PickList
        v-model="wants.layout"
        :items="named(beginnings?.layouts)"
        aria-label="How it is laid out"
    /></label>
    <label
      >all-up weight, at most
      <span
        ><QuantityCell
          :value="wants.weight"
          kind="mass"
          label="All-up weight, at most"
          :unit="units.mass.name"
          :base="units.mass.base"
          optional
          :on-kept="(value) => (wants.weight = value)"
        />
        {{ units.mass.name }}</span
      ></label
    >
    <label
      >wing loading, at most
      <span
        ><QuantityCell
          :value="wants.loading"
          kind="loading"
          label="Wing loading, at most"
          :unit="units.loading.name"
          :base="units.loading.base"
          optional
          :on-kept="(value) => (wants.loading = value)"
        />
        {{ units.loading.name }}</span
      ></label
    >
    <label
      >static thrust
      <span
        ><QuantityCell
          :value="wants.pull"
          kind="thrust"
          label="Static thrust"
          :unit="units.thrust.name"
          :base="units.thrust.base"
          optional
          :on-kept="(value) => (wants.pull = value)"
        />
        {{ units.thrust.name }}</span
      ></label
    >
    <label v-if="wants.pull"
      >thrust-to-weight, at least
      <span
        ><QuantityCell
          :value="wants.thrust"
          kind="number"
          label="Thrust-to-weight, at least"
          optional
          :on-kept="(value) => (wants.thrust = value)"
      /></span>
    </label>
    <label
      >minutes level, at least
      <span
        ><QuantityCell
          :value="wants.minutes"
          kind="number"
          label="Minutes in level flight, at least"
          optional
          :on-kept="(value) => (wants.minutes = value)"
        />
        min</span
      ></label
    >
    <label
      >wing from
      <PickList v-model="wants.wing" :items="named(sheets)" aria-label="Sheet of the wing"
    /></label>
    <v-checkbox-btn v-model="wants.folded" label="folded over, two skins" />
    <label v-if="wants.folded"
      >thick over all
      <span
        ><QuantityCell
          :value="wants.thick"
          kind="length"
          label="Thickness of the wing"
          :unit="units.length.name"
          :base="units.length.base"
          optional
          :on-kept="(value) => (wants.thick = value)"
        />
        {{ units.length.name }}</span
      ></label
    >
    <label
      >tail and body from
      <PickList v-model="wants.body" :items="named(sheets)" aria-label="Sheet of the tail and body"
    /></label>
    <fieldset>
      <legend>from the drawer</legend>
      <p v-if="!things.length" class="faint">
        The drawer is empty: the map shows a bare airframe. Lay things in it from the Stock of any
        build.
      </p>
      <v-checkbox-btn
        v-for="{ thing } in things"
        :key="thing.id"
        :model-value="chosen.has(thing.id)"
        :label="`${thing.name}, ${quantity(thing.listing_g, 'mass')}`"
        @update:model-value="emit('press', thing.id)"
      />
    </fieldset>
  </form>
</template>

<style scoped>
.wants {
  display: grid;
  gap: 10px;
  align-content: start;
}

label {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
}

label span {
  white-space: nowrap;
}

label .pick {
  max-width: 220px;
}

label :deep(.cell) {
  width: 76px;
}

fieldset {
  border: 0;
  border-top: 1px solid var(--line);
  padding: 10px 0 0;
  margin: 0;
}
</style>
