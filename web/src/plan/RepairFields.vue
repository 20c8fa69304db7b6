<script setup lang="ts">
import { useUnits } from '../shared/units'

/** What a repair left on a part, about. */
const glue = defineModel<string>('glue', { required: true })
const patch = defineModel<string>('patch', { required: true })

const { units } = useUnits()
</script>

<template>
  <label
    >glue and tape, about
    <v-text-field v-model="glue" class="entry figure few" inputmode="decimal" />
    {{ units.mass.name }}</label
  >
  <label
    >patches and doublers, about
    <v-text-field v-model="patch" class="entry figure few" inputmode="decimal" />
    {{ units.mass.name }}</label
  >
  <p class="faint small">
    They stay on it and go on the pan with it; weigh it as it is now, and the guess becomes a
    figure. Until the balance is checked again it counts as not checked.
  </p>
</template>

<style scoped>
.few {
  width: 78px;
}
</style>
