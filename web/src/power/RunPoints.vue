<script setup lang="ts">
import { computed } from 'vue'
import type { Run } from '../api/client'
import { fixed, useUnits } from '../shared/units'
import { useDrive } from './useDrive'

const props = defineProps<{ run: Run }>()
const { told } = useDrive()
const { number, units } = useUnits()

type Fit = NonNullable<typeof told.value>['fits'][number]
const NAMES = { thrust: 'thrust', current: 'amps', voltage: 'volts' }
const write = (fit: Fit, value: number) =>
  fit.quantity === 'thrust'
    ? number(value, 'thrust')
    : fixed(value, fit.quantity === 'current' ? 1 : 2)

const rows = computed(() =>
  (told.value?.fits ?? [])
    .filter((each) => each.run === props.run.id)
    .map((each) => ({
      ...each,
      at: Math.round(100 * (props.run.points[each.point]?.throttle ?? 0)),
      name: NAMES[each.quantity],
      was: write(each, each.read),
      others: write(each, each.expected),
    })),
)
</script>

<template>
  <details v-if="rows.length" class="small">
    <summary>each reading beside what all the others say</summary>
    <v-table class="fits">
      <thead>
        <tr>
          <th>at, %</th>
          <th></th>
          <th class="right">read</th>
          <th class="right">the others say</th>
          <th class="right">off, sigma</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rows"
          :key="`${row.point} ${row.quantity}`"
          :class="{ wrong: row.t === null }"
        >
          <td class="figure">{{ row.at }}</td>
          <td>{{ row.name }}{{ row.quantity === 'thrust' ? `, ${units.thrust.name}` : '' }}</td>
          <td class="figure right">{{ row.was }}</td>
          <td class="figure right">{{ row.others }}</td>
          <td class="figure right">
            {{ row.t === null ? 'not believed' : fixed(Math.abs(row.t), 1) }}
          </td>
        </tr>
      </tbody>
    </v-table>
  </details>
</template>

<style scoped>
.fits {
  background: transparent;
  font-size: 13px;
}

.fits th,
.fits td {
  padding: 0 6px 0 0 !important;
  height: 26px !important;
}

.right {
  text-align: right !important;
}
</style>
