<script setup lang="ts">
import { computed } from 'vue'
import type { Control, NewControl } from '../api/client'
import { CONTROL_KINDS, goesSideways, motionWords, useFieldWords } from '../say/field'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import ControlTravel from './ControlTravel.vue'
import { useField } from './useField'

/** What moves, or can be bent: where it is, how far it goes, and what its rod is hung in. */
const props = defineProps<{ each: Control }>()

const { field, setControls, dropControl, bend } = useField()
const { build } = useBuild()
const { units } = useUnits()
const words = useFieldWords()

const surfaces = computed(() => build.value?.surfaces ?? [])
const sideways = computed(() =>
  goesSideways(
    props.each,
    new Set(surfaces.value.filter((s) => s.role === 'fin').map((s) => s.id)),
  ),
)
const ways = computed(() => (sideways.value ? ['right', 'left'] : ['up', 'down']))
const drawn = computed(() =>
  field.value?.told.controls.find((control) => control.id === props.each.id),
)

function edit(patch: Partial<NewControl>) {
  const { id } = props.each
  void setControls((now) => now.map((each) => (each.id === id ? { ...each, ...patch } : each)))
}

const percent = (share: number) => `${Math.round(100 * share)}`
const note = computed(() => {
  if (!drawn.value) return ''
  const { area_dm2, chord_mm, is_usual, usual_low, usual_high } = drawn.value
  const usual = `usual ${percent(usual_low)} to ${percent(usual_high)} %`
  return `${words.quantity(area_dm2, 'area')}, ${words.quantity(chord_mm, 'length')} deep; ${is_usual ? '' : 'not '}the ${usual} of the chord`
})
</script>

<template>
  <article :aria-label="each.name">
    <header>
      <TextCell
        :value="each.name"
        :label="`Name of ${each.name}`"
        @kept="(name) => edit({ name })"
      />
      <span class="small faint"
        >{{ CONTROL_KINDS[each.kind] }} on
        {{ surfaces.find((s) => s.id === each.surface)?.name ?? each.surface }}</span
      >
      <v-verb class="small faint" @click="dropControl(each)"> remove </v-verb>
    </header>
    <p class="row">
      <label
        >from
        <QuantityCell
          :value="100 * each.from_share"
          kind="number"
          :label="`${each.name}: from, per cent of the half span`"
          :least="0"
          :most="100"
          :digits="0"
          @kept="(v) => v !== null && edit({ from_share: v / 100 })"
      /></label>
      <label
        >to
        <QuantityCell
          :value="100 * each.to_share"
          kind="number"
          :label="`${each.name}: to, per cent of the half span`"
          :least="0"
          :most="100"
          :digits="0"
          @kept="(v) => v !== null && edit({ to_share: v / 100 })"
        />
        % of the half span</label
      >
      <label
        >chord
        <QuantityCell
          :value="100 * each.chord_share"
          kind="number"
          :label="`${each.name}: per cent of the chord`"
          :least="1"
          :most="100"
          :digits="0"
          @kept="(v) => v !== null && edit({ chord_share: v / 100 })"
        />
        %</label
      >
    </p>
    <ControlTravel :each="each" :ways="ways" :drawn="drawn" :edit="edit" />
    <p class="row">
      <span
        >trimmed to <strong class="figure">{{ words.setting(each.set_mm, sideways) }}</strong></span
      >
      <QuantityCell
        :value="each.set_mm"
        kind="length"
        :unit="units.length.name"
        :base="units.length.base"
        :digits="units.length.base === 1 ? 1 : 3"
        :label="`${each.name}: trimmed to`"
        @kept="(mm) => mm !== null && bend(each.id, mm)"
      />
      <span class="small faint">{{ ways[0] }} is above 0</span>
    </p>
    <p class="small">{{ motionWords(drawn) }}</p>
    <p class="small faint">{{ note }}</p>
  </article>
</template>

<style scoped>
article {
  display: grid;
  gap: 6px;
  padding: 10px 12px;
  background: var(--paper);
  border: 1px solid var(--line);
}

header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
}

header button {
  margin-left: auto;
  min-height: 34px;
}

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
