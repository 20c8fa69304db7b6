<script setup lang="ts">
import { ref } from 'vue'
import type { Item } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'
import { GRAINS, type Grain, type useCutting } from './useCutting'

const props = defineProps<{ cutting: ReturnType<typeof useCutting>; lit: string | null }>()
const emit = defineEmits<{ look: [item: string | null] }>()

const { units, quantity } = useUnits()
const { parts, left, press, sheets, turn, sized } = props.cutting

/** The sides of a part whose outline nobody gave, as they are typed [mm]. */
const typed = ref<Record<string, { long?: number | null; wide?: number | null }>>({})

function side(item: Item, which: 'long' | 'wide', value: number | null) {
  const own = (typed.value[item.id] = { ...typed.value[item.id], [which]: value })
  if (own.long && own.wide) sized(item, own.long, own.wide)
}

function box(item: Item): string {
  const ring = item.pattern?.rings[0] ?? []
  const xs = ring.map(([x]) => x ?? 0)
  const ys = ring.map(([, y]) => y ?? 0)
  const long = quantity(Math.max(...xs) - Math.min(...xs), 'length')
  return `${long} by ${quantity(Math.max(...ys) - Math.min(...ys), 'length')}`
}

const from = (item: Item) => {
  const use = item.uses.find((each) => each.amount > 0 && sheets.value.has(each.lot))
  return use ? sheets.value.get(use.lot)?.name : ''
}
const many = (item: Item) => item.pieces * (item.pattern?.layers ?? 1)
const amount = (item: Item) =>
  quantity(
    item.uses
      .filter((use) => use.amount > 0 && sheets.value.has(use.lot))
      .reduce((sum, use) => sum + use.amount, 0),
    'area',
  )
</script>

<template>
  <div class="wide" tabindex="0" role="group" aria-label="The parts that are cut from sheets">
    <table class="lined">
      <thead class="faint">
        <tr>
          <th>lay</th>
          <th>part</th>
          <th>from</th>
          <th class="right">counted</th>
          <th class="right">pieces</th>
          <th>outline</th>
          <th>lies</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="item in parts"
          :key="item.id"
          :class="{ lit: lit === item.id }"
          @pointerenter="emit('look', item.id)"
          @pointerleave="emit('look', null)"
        >
          <td>
            <v-checkbox-btn
              :model-value="!left.has(item.id)"
              :aria-label="`Lay ${item.name}`"
              @update:model-value="press(item.id)"
            />
          </td>
          <td>
            <strong>{{ item.name }}</strong>
          </td>
          <td>{{ from(item) }}</td>
          <td class="figure right">{{ amount(item) }}</td>
          <td class="figure right">{{ many(item) }}</td>
          <td v-if="item.pattern" class="figure">{{ box(item) }}</td>
          <td v-else>
            <span class="faint small">none: counts as a plain rectangle; or</span>
            <QuantityCell
              :value="typed[item.id]?.long ?? null"
              kind="length"
              :label="`${item.name}, length of its outline`"
              :unit="units.length.name"
              :base="units.length.base"
              optional
              :least="1"
              :most="5000"
              :on-kept="(value) => side(item, 'long', value)"
            />
            by
            <QuantityCell
              :value="typed[item.id]?.wide ?? null"
              kind="length"
              :label="`${item.name}, width of its outline`"
              :unit="units.length.name"
              :base="units.length.base"
              optional
              :least="1"
              :most="5000"
              :on-kept="(value) => side(item, 'wide', value)"
            />
          </td>
          <td>
            <select
              v-if="item.pattern"
              class="entry"
              :value="item.pattern.grain"
              :aria-label="`How ${item.name} lies on the sheet`"
              @change="turn(item, ($event.target as HTMLSelectElement).value as Grain)"
            >
              <option v-for="each in GRAINS" :key="each.value" :value="each.value">
                {{ each.title }}
              </option>
            </select>
            <span v-else class="faint">any way</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
td :deep(.cell) {
  width: 76px;
}

.lit td {
  background: var(--tag);
}
</style>
