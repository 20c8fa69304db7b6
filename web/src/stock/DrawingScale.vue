<script setup lang="ts">
import { computed, ref } from 'vue'
import { useUnits } from '../shared/units'
import PickList from '../shared/PickList.vue'
import { useCandidates } from './useCandidates'

const { outlines, drawn, know } = useCandidates()
const { units } = useUnits()

const known = ref('')
const correcting = ref(false)
const of = ref<number | 'across'>('across')
const unscaled = computed(() => outlines.value?.mm_per_unit === null)

const ofWidth = computed(() => {
  if (of.value === 'across') return outlines.value?.width_mm ?? 0
  const box = drawn.value.find((each) => each.key === of.value)?.candidate.box
  return box ? box.right_mm - box.left_mm : 0
})
</script>

<template>
  <v-verb v-if="!unscaled && !correcting" class="small not-full" @click="correcting = true">
    It is not drawn to full size
  </v-verb>
  <form v-if="unscaled || correcting" class="ask" @submit.prevent="know(known, ofWidth)">
    <p v-if="unscaled">
      <strong>The drawing does not say its scale.</strong> Give one length that you know; until then
      a unit counts as a millimetre.
    </p>
    <p v-else>Give one length that you know, and the rest follows.</p>
    <label
      >across
      <PickList
        v-model="of"
        :items="[
          { value: 'across', title: 'the whole drawing' },
          ...drawn.map((each) => ({ value: each.key, title: each.name })),
        ]"
        aria-label="What was measured"
      />
      it is
      <v-text-field
        v-model="known"
        class="entry figure few"
        aria-label="True length"
        inputmode="decimal"
      />
      {{ units.length.name }}</label
    >
    <v-btn type="submit">Take this scale</v-btn>
  </form>
</template>

<style scoped>
.ask {
  border-left: 4px solid var(--brass);
  padding-left: 12px;
  display: grid;
  gap: 8px;
  justify-items: start;
}

.few {
  width: 84px;
}

.not-full {
  justify-self: start;
}
</style>
