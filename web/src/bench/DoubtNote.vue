<script setup lang="ts">
import { ref } from 'vue'
import type { Doubt } from '../api/client'
import { fixed, useUnits } from '../shared/units'
import { useDoubts } from './useDoubts'

defineProps<{ doubt: Doubt }>()
const { reason, repair, rivals, putRight, weighAgain, leaveOut, letStand } = useDoubts()
const { number, units } = useUnits()

const SHOWN = 3

const note = ref<HTMLElement>()

/** Go to what is most likely to be done about it. */
function go() {
  const first = note.value?.querySelector('button')
  first?.focus()
  first?.scrollIntoView?.({ block: 'nearest' })
}
defineExpose({ go })
</script>

<template>
  <div ref="note" class="note" role="note">
    <p>
      <strong>{{ Math.abs(doubt.t) > 99 ? 'over 99' : fixed(Math.abs(doubt.t), 0) }}</strong> times
      its doubt from the <span class="figure">{{ number(doubt.expected_g, 'mass') }}</span>
      <span class="faint figure"> ±{{ number(2 * doubt.sd_g, 'mass') }}</span>
      {{ units.mass.name }} that the rest says
    </p>
    <p v-if="doubt.contradicts.length">
      Contradicts {{ rivals(doubt) }}: the readings cannot say which is wrong.
    </p>
    <p v-for="(slip, at) in doubt.slips.slice(0, SHOWN)" :key="at" class="likely">
      {{ at ? 'or' : 'Reads like' }} {{ reason(slip) }}
      <v-verb @click="putRight(doubt, slip)">
        {{ repair(slip) }}
      </v-verb>
    </p>
    <details v-if="doubt.slips.length > SHOWN">
      <summary>or {{ doubt.slips.length - SHOWN }} more that would explain it</summary>
      <p v-for="(slip, at) in doubt.slips.slice(SHOWN)" :key="at">
        {{ reason(slip) }}
        <v-verb @click="putRight(doubt, slip)">
          {{ repair(slip) }}
        </v-verb>
      </p>
    </details>
    <p class="verbs">
      <v-verb @click="weighAgain(doubt)"> weigh it again </v-verb>
      <v-verb @click="leaveOut(doubt)">set it aside</v-verb>
      <v-verb @click="letStand(doubt)">it is right</v-verb>
    </p>
  </div>
</template>

<style scoped>
.note {
  grid-column: 1 / -1;
  border-left: 4px solid var(--rust);
  background: var(--rust-wash);
  padding: 5px 8px;
  margin-top: 5px;
  font-size: 13px;
  line-height: 1.3;
  display: grid;
  gap: 4px;
}

.likely {
  font-weight: 600;
}

.likely button {
  font-weight: 600;
  color: var(--sea);
}

.verbs {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
</style>
