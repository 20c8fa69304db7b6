<script setup lang="ts">
import { computed } from 'vue'
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

interface Asked {
  what: 'weight' | 'loading' | 'pull' | 'thrust' | 'minutes'
  title: string
  label: string
  kind: 'mass' | 'loading' | 'thrust' | 'number'
  unit?: { name: string; base?: number }
}
/** The figures that are wanted; a ratio to the thrust where that is known. */
const asked = computed<Asked[]>(() => {
  const { mass, loading, thrust } = units.value
  const all: Asked[] = [
    {
      what: 'weight',
      title: 'all-up weight, at most',
      label: 'All-up weight, at most',
      kind: 'mass',
      unit: mass,
    },
    {
      what: 'loading',
      title: 'wing loading, at most',
      label: 'Wing loading, at most',
      kind: 'loading',
      unit: loading,
    },
    { what: 'pull', title: 'static thrust', label: 'Static thrust', kind: 'thrust', unit: thrust },
    {
      what: 'thrust',
      title: 'thrust-to-weight, at least',
      label: 'Thrust-to-weight, at least',
      kind: 'number',
    },
    {
      what: 'minutes',
      title: 'minutes level, at least',
      label: 'Minutes in level flight, at least',
      kind: 'number',
      unit: { name: 'min' },
    },
  ]
  return all.filter(({ what }) => what !== 'thrust' || wants.value.pull)
})
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
    <label v-for="each in asked" :key="each.what"
      >{{ each.title }}
      <span
        ><QuantityCell
          :value="wants[each.what]"
          :kind="each.kind"
          :label="each.label"
          :unit="each.unit?.base ? each.unit.name : undefined"
          :base="each.unit?.base"
          optional
          :on-kept="(value) => (wants[each.what] = value)"
        />
        {{ each.unit?.name }}</span
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
