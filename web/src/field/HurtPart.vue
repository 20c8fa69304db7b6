<script setup lang="ts">
import ChoiceButtons from '../shared/ChoiceButtons.vue'
import { useUnits } from '../shared/units'
import type { Hurt } from './useRepair'

/** One part that was hurt, and what became of it. */
defineProps<{ name: string; neverMended: boolean }>()
const part = defineModel<Hurt>('part', { required: true })

const { units } = useUnits()

const WAYS = [
  { name: 'mended', title: 'mended' },
  { name: 'replaced', title: 'replaced' },
  { name: 'off', title: 'off for good' },
] as const

const REPLACED = WAYS.filter((each) => each.name !== 'mended')
</script>

<template>
  <fieldset>
    <legend>{{ name }}</legend>
    <ChoiceButtons
      v-model="part.way"
      :options="neverMended ? REPLACED : WAYS"
      :label="`What became of ${name}`"
    />
    <p v-if="neverMended" class="small faint" role="note">
      A hurt propeller or pack is not mended: a new one in its place.
    </p>
    <div v-if="part.way === 'mended'" class="two">
      <v-text-field
        v-model="part.glue"
        :label="`glue, ${units.mass.name}`"
        inputmode="decimal"
        autocomplete="off"
        hide-details
      />
      <v-text-field
        v-model="part.patch"
        :label="`patch, ${units.mass.name}`"
        inputmode="decimal"
        autocomplete="off"
        hide-details
      />
    </div>
    <div v-else-if="part.way === 'replaced'" class="two">
      <v-text-field
        v-model="part.name"
        label="the new one"
        maxlength="80"
        autocomplete="off"
        hide-details
      />
      <v-text-field
        v-model="part.weighs"
        :label="`weighs about, ${units.mass.name}`"
        inputmode="decimal"
        autocomplete="off"
        hide-details
      />
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  display: grid;
  gap: 10px;
  border: 1px solid var(--line);
  background: var(--paper);
  padding: 8px 12px 12px;
}

legend {
  font-weight: 600;
  padding: 0 4px;
}

.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
</style>
