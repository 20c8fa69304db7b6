<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import { COLOURS } from '../say/colours'
import { asSaid, type Choice, type Heading } from '../shared/choices'
import PickList from '../shared/PickList.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { useRack } from '../shared/useRack'
import { PEDIGREES, type Fields } from './usePartLine'

/** What is typed of a part, figure by figure. */
const fields = defineModel<Fields>({ required: true })
const { isAllowance } = defineProps<{
  isAllowance: boolean
  amountUnit: string
  multiplied: string
}>()
defineEmits<{ lot: [] }>()

const OF = [
  { value: 'all' as const, title: 'in all' },
  { value: 'each' as const, title: 'each' },
]
const DATUMS = [
  { value: 'nose' as const, title: 'of nose' },
  { value: 'leading_edge' as const, title: 'of leading edge' },
]
const ASIDE = [
  { of: 'y', title: 'starboard', label: 'To starboard' },
  { of: 'z', title: 'up', label: 'Up' },
] as const
const PAINTS = [{ value: '', title: 'plain' }, ...asSaid(Object.keys(COLOURS))]

const { build } = useBuild()
const { others } = useRack()
const { units, example } = useUnits()
/** About how a panel's sides would be typed. */
const panel = computed(() => `${example(540, 'length')} x ${example(190, 'length')}`)
const groups = computed(() =>
  [...new Set(build.value?.parts.map((part) => part.assembly))].filter(Boolean),
)
const pedigrees = computed(() =>
  isAllowance ? PEDIGREES : PEDIGREES.filter((each) => each.value !== 'allowance'),
)
const lots = computed((): (Choice | Heading)[] => [
  { value: '', title: 'by itself' },
  ...(build.value?.lots ?? []).map((lot) => ({ value: lot.id, title: `of ${lot.name}` })),
  ...(others.value.length ? [{ type: 'subheader' as const, title: 'from the rack' }] : []),
  ...others.value.map(({ lot }) => ({ value: `rack:${lot.id}`, title: `of ${lot.name}` })),
])
const station = useTemplateRef<HTMLElement>('station')
defineExpose({ toStation: () => station.value?.focus() })
const several = computed(() => Number(fields.value.pieces.replace(',', '.')) > 1)
</script>

<template>
  <div class="all">
    <label class="assembly"
      ><span class="faint">in</span>
      <v-text-field
        v-model="fields.assembly"
        class="entry"
        aria-label="Assembly"
        list="assemblies"
        placeholder="assembly"
        maxlength="80"
      />
      <datalist id="assemblies">
        <option v-for="group in groups" :key="group" :value="group" />
      </datalist>
    </label>
    <label
      ><span class="faint">known by</span>
      <PickList v-model="fields.pedigree" :items="pedigrees" aria-label="How the mass is known" />
    </label>
    <div class="figures">
      <label
        ><span class="faint">figure, {{ amountUnit }}</span>
        <v-text-field
          v-model="fields.amount"
          class="entry figure"
          :aria-label="fields.lot ? 'How much of the lot' : 'Mass'"
          :placeholder="amountUnit === units.area.name ? `${panel}, 2/3 sheet` : ''"
          inputmode="decimal"
          autocomplete="off"
        />
      </label>
      <PickList
        v-model="fields.lot"
        :items="lots"
        aria-label="Made of"
        @update:model-value="$emit('lot')"
      />
    </div>
    <div class="figures">
      <label
        ><span class="faint">pieces</span>
        <v-text-field
          v-model="fields.pieces"
          class="entry figure few"
          aria-label="Pieces"
          inputmode="numeric"
          autocomplete="off"
        />
      </label>
      <template v-if="several">
        <PickList v-model="fields.of" :items="OF" aria-label="The figure is of" />
        <span class="faint small times" role="status">{{ multiplied }}</span>
      </template>
    </div>
    <div class="figures">
      <label
        ><span class="faint">{{ units.length.name }} aft</span>
        <v-text-field
          ref="station"
          v-model="fields.x"
          class="entry figure"
          aria-label="Station"
          inputmode="decimal"
          autocomplete="off"
        />
      </label>
      <PickList v-model="fields.reference" :items="DATUMS" aria-label="Measured from" />
    </div>
    <label v-for="each in ASIDE" :key="each.of"
      ><span class="faint">{{ each.title }}</span>
      <v-text-field
        v-model="fields[each.of]"
        class="entry figure few"
        :aria-label="each.label"
        inputmode="decimal"
        autocomplete="off"
      />
    </label>
    <label
      ><span class="faint">colour</span>
      <PickList v-model="fields.colour" :items="PAINTS" aria-label="Colour" />
    </label>
    <label class="option"
      ><span class="faint">option</span>
      <v-checkbox-btn v-model="fields.option" aria-label="Only in some loadouts" />
    </label>
  </div>
</template>

<style scoped>
.all {
  display: contents;
}

label {
  display: grid;
  font-size: 13px;
}

.assembly {
  flex: 0 1 140px;
}

.entry {
  width: 100%;
}

.figures {
  display: flex;
  align-items: end;
  gap: 4px;
}

.figures label {
  width: 92px;
}

.figures .pick {
  max-width: 140px;
}

.few {
  width: 64px;
  min-width: 0;
}

.figures label:has(.few) {
  width: auto;
}

.entry.figure {
  text-align: right;
}

.option .v-selection-control {
  margin: 3px 0;
}
</style>
