<script setup lang="ts">
import { CHOICES, useDecimalMark, useUnits } from './units'
import { useEscape } from './useEscape'
import { vFirst } from './vFirst'
import PickList from './PickList.vue'

/** One choice of units each for mass, length and area, and the mark of decimals. */
const open = defineModel<boolean>({ required: true })
useEscape(open)

const { chosen } = useUnits()
const mark = useDecimalMark()
const MARKS = [
  { value: '.', title: 'a point: 12.4' },
  { value: ',', title: 'a comma: 12,4' },
]
</script>

<template>
  <v-dialog v-model="open" max-width="420" aria-label="Units">
    <v-sheet class="sheet">
      <h2>Units</h2>
      <PickList v-model="chosen.mass" v-first label="Mass and thrust" :items="[...CHOICES.mass]" />
      <PickList v-model="chosen.length" label="Lengths" :items="[...CHOICES.length]" />
      <PickList v-model="chosen.area" label="Areas and loading" :items="[...CHOICES.area]" />
      <PickList v-model="mark" label="Decimals are shown with" :items="MARKS" />
      <p class="faint small">
        Any unit may be typed anywhere; what is shown is in these. Kept on this device.
      </p>
      <v-btn @click="open = false">Close</v-btn>
    </v-sheet>
  </v-dialog>
</template>

<style scoped>
.sheet {
  padding: 20px 24px;
  display: grid;
  gap: 14px;
  justify-items: start;
}

.sheet > .v-input {
  width: 100%;
}
</style>
