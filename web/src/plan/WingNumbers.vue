<script setup lang="ts">
import type { Assessment } from '../api/client'
import { useUnits } from '../shared/units'

defineProps<{ assessment: Assessment | undefined }>()
const { quantity } = useUnits()
</script>

<template>
  <aside aria-label="What the drawing comes to">
    <h3>What the drawing comes to</h3>
    <dl v-if="assessment?.wing">
      <dt>Wing area, all main wings</dt>
      <dd class="figure">{{ quantity(assessment.wing.area_dm2, 'area') }}</dd>
      <dt>Span</dt>
      <dd class="figure">{{ quantity(assessment.wing.span_mm, 'length') }}</dd>
      <dt>Mean aerodynamic chord</dt>
      <dd class="figure">{{ quantity(assessment.wing.mac_mm, 'length') }}</dd>
      <dt>It begins, from the nose</dt>
      <dd class="figure">{{ quantity(assessment.wing.mac_le_x_mm, 'length') }}</dd>
      <dt>Aspect ratio</dt>
      <dd class="figure">{{ assessment.wing.aspect_ratio.toFixed(1) }}</dd>
    </dl>
    <p v-else class="faint">No main wing is drawn yet. Wing loading and % MAC wait for it.</p>
    <p class="faint small">Only surfaces called wing count; both halves, ailerons included.</p>
  </aside>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  margin: 8px 0;
  font-size: 14px;
}

dd {
  margin: 0;
  text-align: right;
}
</style>
