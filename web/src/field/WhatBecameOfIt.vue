<script setup lang="ts">
import { computed } from 'vue'
import type { LookingBack } from '../api/client'
import { howMany } from '../say/counts'
import { useFieldWords } from '../say/field'
import { fixed, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { useVerdicts } from '../shared/verdicts'

/** Weight, balance, time and money as they were planned, and as they became. */
const props = defineProps<{ back: LookingBack }>()

const { loadouts, nameOf } = useBuild()
const { quantity, stated, units } = useUnits()
const { value, unit, origin } = useVerdicts()
const { day } = useFieldWords()

/** The balance it was to have and the one it has, in the target's own unit. */
const balance = computed(() => {
  const target = props.back.balance
  const answer = loadouts.value[0]?.answers.find((each) => each.kind === 'balance')
  if (!target || !answer) return undefined
  const of = `${unit(answer)} ${origin(answer)}`
  const [low, high] = [target.low, target.high].map((end) => end !== null && value(end, answer))
  const planned = low && high ? `${low} to ${high}` : low ? `at least ${low}` : `at most ${high}`
  return {
    planned: `${planned} ${of}`,
    is: answer.value === null ? '—' : `${value(answer.value, answer)} ${of}`,
  }
})
</script>

<template>
  <div class="was">
    <h2>Planned, and what became of it</h2>
    <v-table>
      <thead>
        <tr>
          <th></th>
          <th>planned</th>
          <th>became</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th>weight</th>
          <td class="figure">
            {{ quantity(back.planned_g, 'mass')
            }}<template v-if="back.limit_g !== null"
              >, limit {{ stated(back.limit_g) }} {{ units.mass.name }}</template
            >
          </td>
          <td class="figure">{{ quantity(back.weighs_g, 'mass') }}</td>
        </tr>
        <tr v-if="balance">
          <th>balance</th>
          <td class="figure">{{ balance.planned }}</td>
          <td class="figure">{{ balance.is }}</td>
        </tr>
        <tr>
          <th>time</th>
          <td>{{ day(back.begun_at) || 'not begun' }}</td>
          <td>
            {{
              back.finished_at
                ? `${day(back.finished_at)}, ${howMany(Math.round(back.days ?? 0), 'day')}`
                : 'not finished'
            }}
          </td>
        </tr>
        <tr>
          <th>money</th>
          <td></td>
          <td class="figure">
            {{ fixed(back.cost, 2)
            }}<span v-if="back.unpriced" class="faint small">
              and {{ back.unpriced }} without a price</span
            >
          </td>
        </tr>
      </tbody>
    </v-table>
    <template v-if="back.parts.length">
      <h3>What came out otherwise</h3>
      <ul>
        <li v-for="each in back.parts" :key="each.part">
          <span>{{ nameOf(each.part) }}</span>
          <span class="figure"
            >{{ quantity(each.planned_g, 'mass') }} → {{ quantity(each.weighs_g, 'mass') }}</span
          >
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.was {
  display: grid;
  gap: 10px;
}

.v-table {
  border-collapse: collapse;
}

th {
  text-align: left;
  font-weight: 500;
}

td,
th {
  padding: 6px 10px 6px 0;
  border-bottom: 1px solid var(--line);
}

li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
  min-height: 40px;
  border-bottom: 1px solid var(--line);
}
</style>
