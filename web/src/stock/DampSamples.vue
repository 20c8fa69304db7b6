<script setup lang="ts">
import { computed } from 'vue'
import type { Damp, Lot } from '../api/client'
import { fixed, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'

/** Samples of one lot that gained or dried from one day to another: which of them go aside. */
const props = defineProps<{ lot: Lot; damp: Damp }>()

const { setSeveralAside } = useBuild()
const { rate, perUnit } = useUnits()

function day(at: string): string {
  return new Date(at).toLocaleDateString(undefined, { day: 'numeric', month: 'short' })
}

const BECAME = { as_it_was: 'as dry as it was', damp: 'damp', dried: 'it has dried' }
/** Of a lot that gained or dried, one day's samples go aside: which, why, and what is noted. */
const SETTLED = {
  as_it_was: [],
  damp: [
    { at: -1, title: 'the last, it will dry', reason: 'damp' },
    { at: 0, title: 'the first, it is cut as it is now', reason: 'from before it was damp' },
  ],
  dried: [
    { at: 0, title: 'the first, it was damp then', reason: 'damp' },
    { at: -1, title: 'the last, it was cut before it dried', reason: 'from after it dried' },
  ],
}
function settle({ at, reason }: (typeof SETTLED)['damp'][number]) {
  void setSeveralAside(props.damp.sittings.at(at)?.weighings ?? [], reason)
}

const gain = computed(() => {
  const share = props.damp.gain * 100
  return `${share > 0 ? '+' : '−'}${fixed(Math.abs(share), 1)} %`
})
</script>

<template>
  <div class="damp" role="status">
    <p>
      <strong>{{ gain }}</strong> since {{ day(damp.sittings[0]!.at) }}
      <span class="faint small">(±{{ fixed(200 * damp.gain_sd, 1) }})</span>:
      {{ BECAME[damp.became] }}
    </p>
    <ol class="small faint figure">
      <li v-for="sitting in damp.sittings" :key="sitting.at">
        {{ day(sitting.at) }} {{ perUnit(sitting.constant, lot.unit) }} {{ rate(lot.unit).name }}
      </li>
    </ol>
    <p v-if="damp.sure" class="small">
      The forecast takes both until one goes aside:
      <template v-for="(way, k) in SETTLED[damp.became]" :key="way.title"
        >{{ k ? ' or ' : '' }}<v-verb @click="settle(way)"> {{ way.title }} </v-verb></template
      >
    </p>
  </div>
</template>

<style scoped>
.damp {
  border-left: 4px solid var(--sea);
  padding: 2px 0 2px 10px;
  display: grid;
  gap: 4px;
}

ol {
  display: flex;
  flex-wrap: wrap;
  gap: 0 16px;
}
</style>
