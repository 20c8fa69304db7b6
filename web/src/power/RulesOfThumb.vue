<script setup lang="ts">
import { computed } from 'vue'
import { fixed, useUnits } from '../shared/units'
import { useDrive } from './useDrive'

const { mine } = useDrive()
const { number, units } = useUnits()

const rows = computed(() =>
  (mine.value?.rules ?? []).map((each) => {
    const ends = (write: (value: number) => string) =>
      each.low === null
        ? `up to ${write(each.high ?? 0)}`
        : `${write(each.low)} to ${write(each.high ?? 0)}`
    const plain = (value: number) => fixed(value, each.rule === 'watts_per_kg' ? 0 : 2)
    const length = (value: number) => `${number(value, 'length')} ${units.value.length.name}`
    switch (each.rule) {
      case 'thrust_to_weight':
        return { ...each, name: 'thrust-to-weight', is: plain(each.value), usual_is: ends(plain) }
      case 'watts_per_kg':
        return { ...each, name: 'W/kg', is: plain(each.value), usual_is: ends(plain) }
      case 'pitch_speed':
        return {
          ...each,
          name: 'pitch speed over stall',
          is: fixed(each.value, 1),
          usual_is: ends((value) => fixed(value, 1)),
        }
      default:
        return {
          ...each,
          name: 'propeller below its shaft',
          is: length(each.value),
          usual_is: `${length(each.high ?? 0)} to the lowest part: it strikes first on landing`,
        }
    }
  }),
)
</script>

<template>
  <section v-if="rows.length" aria-label="Rules of thumb">
    <h2>Rules of thumb</h2>
    <p v-for="row in rows" :key="row.rule" class="small">
      <span :class="{ wrong: !row.usual }"
        >{{ row.name }} <span class="figure">{{ row.is }}</span></span
      ><span class="faint"
        >;
        {{
          row.rule === 'propeller_room'
            ? row.usual
              ? 'room for it'
              : row.usual_is
            : `usual ${row.usual_is}`
        }}</span
      >
    </p>
    <p class="small faint">Habits among builders, by purpose; they warn and block nothing.</p>
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--ink);
  padding-top: 14px;
  display: grid;
  gap: 4px;
}
</style>
