<script setup lang="ts">
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import { usePaper } from './usePaper'

const { assessment } = useBuild()
const { quantity } = useUnits()
const { at, inFront } = usePaper()
const drawn = computed(() => (assessment.value?.outlines ?? []).filter((each) => !each.is_port))
</script>

<template>
  <section aria-label="At full size">
    <h2>Balance marks</h2>
    <p class="small">
      The root chord with its leading edge, where it must balance, where it does and the neutral
      point: cut it out and lay it on the wing.
    </p>
    <v-btn
      v-if="assessment?.wing"
      class="press--main"
      :href="inFront('balance-marks.pdf')"
      target="_blank"
      >Balance marks, PDF</v-btn
    >
    <p v-else class="faint">Draw the main wing on the Plan first.</p>
    <h2>Outlines</h2>
    <p class="small">
      What is drawn, at full size, on as many sheets as it takes: lay the crosses on each other,
      tape, and cut along the line. A wing comes from its root to starboard; turned over it is the
      other side.
    </p>
    <ul v-if="drawn.length">
      <li v-for="each in drawn" :key="each.id">
        <a :href="at('outlines.pdf', { surface: each.id })" target="_blank">{{ each.name }}, PDF</a>
        <span class="faint small"
          >{{ quantity(each.span_mm, 'length') }}, chord
          {{ quantity(each.chord_mm, 'length') }}</span
        >
      </li>
    </ul>
    <p v-else class="faint">Nothing is drawn yet.</p>
    <p class="warns small" role="note">
      Print at 100 %, not fitted to the page, and measure the line at the foot before you cut. A
      fresh blade, a straight edge, fingers behind the knife.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  justify-items: start;
  max-width: 720px;
}

li {
  display: flex;
  gap: 14px;
  align-items: center;
  min-height: 32px;
}

a {
  color: inherit;
  min-height: 24px;
  line-height: 24px;
}
</style>
