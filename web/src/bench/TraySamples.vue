<script setup lang="ts">
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import { useBench } from './useBench'

/** Sheets and rolls of the build: a piece of known size of each can go on the pan. */
const { build, assessment } = useBuild()
const { pressSample, pan } = useBench()
const { rate, perUnit } = useUnits()

const samples = computed(() =>
  (build.value?.lots ?? []).map((lot) => ({
    lot,
    told: assessment.value?.lots.find((each) => each.id === lot.id),
    on: pan.value.samples.some((sample) => sample.lot === lot.id),
  })),
)
</script>

<template>
  <div v-if="samples.length" class="group">
    <h3 class="heading">Sheets and rolls</h3>
    <button
      v-for="sample in samples"
      :key="sample.lot.id"
      type="button"
      class="plainly sample"
      :class="{ on: sample.on }"
      :aria-pressed="sample.on"
      @click="pressSample(sample.lot.id)"
    >
      <span>{{ sample.lot.name }}</span>
      <span class="figure"
        >{{ perUnit(sample.told?.constant ?? sample.lot.constant, sample.lot.unit) }}
        <span class="faint"
          >±{{ perUnit(2 * (sample.told?.sd ?? sample.lot.doubt), sample.lot.unit) }}
          {{ rate(sample.lot.unit).name }}</span
        ></span
      >
    </button>
  </div>
</template>

<style scoped>
.group {
  margin-bottom: 10px;
}

.heading {
  padding: 2px 2px 3px;
  break-after: avoid;
}

.sample {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  padding: 5px 6px;
  border-bottom: 1px solid var(--line);
  font-size: 13px;
  break-inside: avoid;
}

.sample .figure {
  white-space: nowrap;
}

.sample:hover,
.sample.on {
  background: var(--sea-wash);
}
</style>
