<script setup lang="ts">
import { computed } from 'vue'
import { useUnits } from '../shared/units'
import OfferedAs from './OfferedAs.vue'
import OfferLine from './OfferLine.vue'
import { useCandidates } from './useCandidates'

const { offers, drawn, sheets, constant, chosen, keep, print } = useCandidates()
const { units, number } = useUnits()

const grams = computed(() =>
  chosen.value.reduce(
    (sum, each) =>
      sum + each.candidate.area_dm2 * each.layers * (each.twin ? 2 : 1) * constant.value,
    0,
  ),
)
</script>

<template>
  <section class="offers" aria-label="Parts offered">
    <div v-if="!sheets.length" class="blank">
      <h2>No sheet to cut from yet</h2>
      <p class="faint">
        Take a foam sheet from the Rack first; what a piece of it weighs makes areas into masses.
      </p>
    </div>
    <div v-else-if="!offers.length" class="blank faint">
      <h2>Parts appear here</h2>
      <p>
        Each closed outline becomes a part with its area and centroid; what lies inside it is cut
        out. Or measure a plain shape on the left.
      </p>
    </div>
    <template v-else>
      <OfferedAs />
      <div
        class="wide"
        tabindex="0"
        role="group"
        aria-label="A table, wider than the screen perhaps"
      >
        <v-table class="lined">
          <thead class="faint">
            <tr>
              <th />
              <th>part</th>
              <th class="right">area, {{ units.area.name }}</th>
              <th class="right">holes</th>
              <th>layers</th>
              <th>twin</th>
              <th>aft</th>
              <th>side</th>
              <th>up</th>
              <th class="right">weighs, {{ units.mass.name }}</th>
            </tr>
          </thead>
          <tbody>
            <OfferLine
              v-for="each in offers"
              :key="each.key"
              v-model:offer="offers[offers.indexOf(each)]!"
              :constant="constant"
            />
          </tbody>
        </v-table>
      </div>
      <p class="keep">
        <v-btn class="press--main" :disabled="!chosen.length" @click="keep">
          Keep {{ chosen.length === 1 ? 'one part' : `${chosen.length} parts` }}
        </v-btn>
        <span class="figure">{{ number(grams, 'mass') }} {{ units.mass.name }}</span>
        <span class="faint small">in all, before anything is cut</span>
        <v-btn v-if="drawn.some((each) => each.taken)" class="press--quiet" @click="print"
          >Print at full size</v-btn
        >
      </p>
    </template>
  </section>
</template>

<style scoped>
.offers {
  display: grid;
  gap: 14px;
  align-content: start;
}

.keep {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}

.blank {
  padding: 12px 0;
  display: grid;
  gap: 8px;
  max-width: 52ch;
}
</style>
