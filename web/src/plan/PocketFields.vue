<script setup lang="ts">
import { computed } from 'vue'
import type { Part } from '../api/client'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'

/** A pocket as it is typed: its sides, how deep, and what goes into it. */
const props = defineProps<{ part: Part }>()
const long = defineModel<string>('long', { required: true })
const wide = defineModel<string>('wide', { required: true })
const deep = defineModel<string>('deep', { required: true })
const holds = defineModel<string>('holds', { required: true })

const { build } = useBuild()
const { units } = useUnits()
const inside = computed(
  () =>
    build.value?.parts.filter(
      (part) => !part.retired && part.id !== props.part.id && !part.uses.length && !part.host,
    ) ?? [],
)
</script>

<template>
  <label
    >long
    <v-text-field
      v-model="long"
      class="entry figure few"
      aria-label="Length of the pocket"
      inputmode="decimal"
    />
    by
    <v-text-field
      v-model="wide"
      class="entry figure few"
      aria-label="Width of the pocket"
      inputmode="decimal"
    />
    {{ units.length.name }}</label
  >
  <label
    >deep
    <v-text-field
      v-model="deep"
      class="entry figure few"
      aria-label="Depth of the pocket"
      placeholder="through"
      inputmode="decimal"
    />
    {{ units.length.name }}</label
  >
  <label
    >for
    <PickList v-model="holds" :items="named(inside, 'nothing yet')" aria-label="What goes into it"
  /></label>
  <p class="faint small">
    What is cut out of its sheet counts below zero, where the part sits; what goes into it sits
    there too. Move both on the Balance.
  </p>
</template>

<style scoped>
.few {
  width: 78px;
}
</style>
