<script setup lang="ts">
import ChoiceChip from '../shared/ChoiceChip.vue'
import { FACES } from '../shared/useRack'
import PartsByLot from './PartsByLot.vue'
import { toggled } from './toggled'
import { useOtherWays } from './useOtherWays'
import WaysBeside from './WaysBeside.vue'

const { parts, lots, faces, offered, compared, wrong, adopt } = useOtherWays()
</script>

<template>
  <div class="ways">
    <PartsByLot v-model="parts" />
    <section aria-label="Side by side">
      <h2>Made from what instead?</h2>
      <p v-if="!parts.length" class="faint">
        Choose parts: paper on or off, glue or tape, another sheet, side by side with today.
      </p>
      <div v-else-if="offered" class="chips">
        <ChoiceChip
          v-for="each in offered.faces"
          :key="each"
          :on="faces.includes(each)"
          @click="faces = toggled(faces, each)"
          >the same, {{ each === 'none' ? 'both papers off' : FACES[each] }}</ChoiceChip
        >
        <ChoiceChip
          v-for="lot in offered.lots"
          :key="lot.id"
          :on="lots.includes(lot.id)"
          @click="lots = toggled(lots, lot.id)"
          >{{ lot.name }}</ChoiceChip
        >
        <span v-if="!offered.lots.length && !offered.faces.length" class="faint"
          >Nothing on the rack is cut or run alike.</span
        >
      </div>
      <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
      <WaysBeside v-if="compared" :compared="compared" @adopt="adopt" />
    </section>
  </div>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: minmax(0, 4fr) minmax(0, 8fr);
  gap: 32px;
}

section {
  display: grid;
  gap: 10px;
  align-content: start;
}

.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

@media (max-width: 700px) {
  .ways {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
