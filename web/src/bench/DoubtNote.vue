<script setup lang="ts">
import { ref } from 'vue'
import type { Doubt } from '../api/client'
import { fixed, useUnits } from '../shared/units'
import { useDoubts } from './useDoubts'

defineProps<{ doubt: Doubt }>()
const { reason, repair, rivals, putRight, weighAgain, leaveOut, letStand } = useDoubts()
const { number, units } = useUnits()

const SHOWN = 3

const first = ref<HTMLButtonElement[] | HTMLButtonElement>()
const again = ref<HTMLButtonElement>()

/** Go to what is most likely to be done about it. */
function go() {
  const button = Array.isArray(first.value) ? first.value[0] : first.value
  const to = button ?? again.value
  to?.focus()
  to?.scrollIntoView?.({ block: 'nearest' })
}
defineExpose({ go })
</script>

<template>
  <div class="note" role="note">
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
      <button ref="first" type="button" class="plainly under" @click="putRight(doubt, slip)">
        {{ repair(slip) }}
      </button>
    </p>
    <details v-if="doubt.slips.length > SHOWN">
      <summary>or {{ doubt.slips.length - SHOWN }} more that would explain it</summary>
      <p v-for="(slip, at) in doubt.slips.slice(SHOWN)" :key="at">
        {{ reason(slip) }}
        <button type="button" class="plainly under" @click="putRight(doubt, slip)">
          {{ repair(slip) }}
        </button>
      </p>
    </details>
    <p class="verbs">
      <button ref="again" type="button" class="plainly under" @click="weighAgain(doubt)">
        weigh it again
      </button>
      <button type="button" class="plainly under" @click="leaveOut(doubt)">set it aside</button>
      <button type="button" class="plainly under" @click="letStand(doubt)">it is right</button>
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

.likely .under {
  font-weight: 600;
  color: var(--sea);
}

.verbs {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
</style>
