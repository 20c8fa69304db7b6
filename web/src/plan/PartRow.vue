<script setup lang="ts">
import type { Part, PartMass } from '../api/client'
import { usePartWords } from '../say/parts'
import TheMark from '../shared/TheMark.vue'
import { useUnits } from '../shared/units'
import { PEDIGREES } from './usePartLine'
import { isAdrift } from './useTable'

/** A part in the table: as it was typed, and what it weighs by now. */
const props = defineProps<{ part: Part; mass?: PartMass | undefined }>()
defineEmits<{ change: []; place: [] }>()

const { number } = useUnits()
const { basis } = usePartWords()

function known(): string {
  return PEDIGREES.find((each) => each.value === props.part.pedigree)?.title ?? props.part.pedigree
}

/** The station by both references; the one that was typed is set in ink. */
function stations(): { text: string; typed: boolean }[] {
  const { part, mass } = props
  return [
    { at: mass?.x_from_nose_mm, typed: part.station?.reference === 'nose' },
    { at: mass?.x_from_leading_edge_mm, typed: part.station?.reference === 'leading_edge' },
  ].map(({ at, typed }) => ({ text: typeof at === 'number' ? number(at, 'length') : '', typed }))
}
</script>

<template>
  <tr class="part">
    <td>
      <button
        type="button"
        class="plainly name"
        :aria-label="`Change ${part.name}`"
        @click="$emit('change')"
      >
        <template v-if="part.host">↳ </template>{{ part.name }}
      </button>
    </td>
    <td class="faint more">{{ part.assembly }}</td>
    <td class="more">{{ known() }}</td>
    <td class="figure basis more" :title="basis(part)">{{ basis(part) }}</td>
    <td class="figure right more">{{ part.pieces > 1 ? part.pieces : '' }}</td>
    <template v-if="isAdrift(part)">
      <td class="right">
        <v-verb
          class="place wrong"
          :aria-label="`not placed: say where ${part.name} sits`"
          @click="$emit('place')"
          >not placed</v-verb
        >
      </td>
      <td class="more" />
    </template>
    <td
      v-for="(from, at) in isAdrift(part) ? [] : stations()"
      :key="at"
      class="figure right"
      :class="{ faint: !from.typed, more: at === 1 }"
    >
      {{ from.text }}
    </td>
    <td class="figure right more">
      {{ part.station?.y_mm ? number(part.station.y_mm, 'length') : '' }}
    </td>
    <td class="figure right more">
      {{ part.station?.z_mm ? number(part.station.z_mm, 'length') : '' }}
    </td>
    <td class="more">{{ part.option ? 'yes' : '' }}</td>
    <td class="now">
      <template v-if="mass">
        <TheMark :mark="mass.mark" />
        <span class="figure"
          >{{ number(mass.mass_g, 'mass') }}
          <span class="faint">±{{ number(2 * mass.sd_g, 'mass') }}</span></span
        >
      </template>
    </td>
  </tr>
</template>

<style scoped>
.basis {
  max-width: 250px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

.name {
  font-weight: 600;
  min-height: 24px;
}

.name:hover {
  text-decoration: underline;
}

.now {
  white-space: nowrap;
  text-align: right;
}

.now :deep(.mark) {
  vertical-align: -4px;
  margin-right: 4px;
  width: 15px;
}

.part:hover td {
  background: var(--sea-wash);
}

@media (max-width: 1000px) {
  .more {
    display: none;
  }

  td:first-child {
    white-space: normal;
  }

  .name,
  .place {
    min-height: 40px;
  }
}
</style>
