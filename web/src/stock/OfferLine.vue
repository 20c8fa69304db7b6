<script setup lang="ts">
import { useOutlineWords } from '../say/outlines'
import { computed } from 'vue'
import { useUnits } from '../shared/units'
import type { Offer } from './useCandidates'
const { flaw } = useOutlineWords()

const offer = defineModel<Offer>('offer', { required: true })
const props = defineProps<{ constant: number }>()
const { number } = useUnits()

const grams = computed(
  () =>
    offer.value.candidate.area_dm2 *
    offer.value.layers *
    (offer.value.twin ? 2 : 1) *
    props.constant,
)
</script>

<template>
  <tr :class="{ off: !offer.taken }">
    <td>
      <input
        v-model="offer.taken"
        type="checkbox"
        :aria-label="`Keep ${offer.name}`"
        :disabled="offer.candidate.flaw !== null"
      />
    </td>
    <td>
      <input v-model="offer.name" class="entry name" aria-label="Name of the part" maxlength="80" />
    </td>
    <td v-if="offer.candidate.flaw" colspan="8" class="wrong small">
      {{ flaw(offer.candidate.flaw) }}
    </td>
    <template v-else>
      <td class="figure right">
        {{ number(offer.candidate.area_dm2, 'area') }}
      </td>
      <td class="figure right">{{ offer.candidate.holes || '' }}</td>
      <td>
        <input
          v-model.number="offer.layers"
          class="entry figure few"
          type="number"
          min="1"
          max="20"
          :aria-label="`Layers of ${offer.name}`"
        />
      </td>
      <td>
        <input
          v-model="offer.twin"
          type="checkbox"
          :aria-label="`${offer.name} has a mirrored twin`"
        />
      </td>
      <td v-for="axis in ['x', 'y', 'z'] as const" :key="axis">
        <input
          v-model="offer[axis]"
          class="entry figure at"
          inputmode="decimal"
          :aria-label="`${offer.name}, ${{ x: 'aft', y: 'side', z: 'up' }[axis]}`"
        />
      </td>
      <td class="figure right">
        {{ number(grams, 'mass') }}
      </td>
    </template>
  </tr>
</template>

<style scoped>
.off {
  opacity: 0.6;
}

.name {
  width: 100%;
  min-width: 120px;
}

.few {
  width: 52px;
}

.at {
  width: 60px;
  min-width: 50px;
}
</style>
