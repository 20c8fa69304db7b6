<script setup lang="ts">
import { ref } from 'vue'
import type { Part } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'
import { GRAINS, type Grain, type useCutting } from './useCutting'

const props = defineProps<{ cutting: ReturnType<typeof useCutting>; lit: string | null }>()
const emit = defineEmits<{ look: [part: string | null] }>()

const { units, quantity } = useUnits()
const { parts, left, press, sheets, turn, sized } = props.cutting

/** The sides of a part whose outline nobody gave, as they are typed [mm]. */
const typed = ref<Record<string, { long?: number | null; wide?: number | null }>>({})

function side(part: Part, which: 'long' | 'wide', value: number | null) {
  const own = (typed.value[part.id] = { ...typed.value[part.id], [which]: value })
  if (own.long && own.wide) sized(part, own.long, own.wide)
}

function box(part: Part): string {
  const ring = part.pattern?.rings[0] ?? []
  const xs = ring.map(([x]) => x ?? 0)
  const ys = ring.map(([, y]) => y ?? 0)
  const long = quantity(Math.max(...xs) - Math.min(...xs), 'length')
  return `${long} by ${quantity(Math.max(...ys) - Math.min(...ys), 'length')}`
}

const from = (part: Part) => {
  const use = part.uses.find((each) => each.amount > 0 && sheets.value.has(each.lot))
  return use ? sheets.value.get(use.lot)?.name : ''
}
const many = (part: Part) => part.pieces * (part.pattern?.layers ?? 1)
const amount = (part: Part) =>
  quantity(
    part.uses
      .filter((use) => use.amount > 0 && sheets.value.has(use.lot))
      .reduce((sum, use) => sum + use.amount, 0),
    'area',
  )
</script>

<template>
  <div class="wide" tabindex="0" role="group" aria-label="The parts that are cut from sheets">
    <v-table class="lined">
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
          v-for="part in parts"
          :key="part.id"
          :class="{ lit: lit === part.id }"
          @pointerenter="emit('look', part.id)"
          @pointerleave="emit('look', null)"
        >
          <td>
            <v-checkbox-btn
              :model-value="!left.has(part.id)"
              :aria-label="`Lay ${part.name}`"
              @update:model-value="press(part.id)"
            />
          </td>
          <td>
            <strong>{{ part.name }}</strong>
          </td>
          <td>{{ from(part) }}</td>
          <td class="figure right">{{ amount(part) }}</td>
          <td class="figure right">{{ many(part) }}</td>
          <td v-if="part.pattern" class="figure">{{ box(part) }}</td>
          <td v-else>
            <span class="faint small">none: counts as a plain rectangle; or</span>
            <QuantityCell
              :value="typed[part.id]?.long ?? null"
              kind="length"
              :label="`${part.name}, length of its outline`"
              :unit="units.length.name"
              :base="units.length.base"
              optional
              :least="1"
              :most="5000"
              :on-kept="(value) => side(part, 'long', value)"
            />
            by
            <QuantityCell
              :value="typed[part.id]?.wide ?? null"
              kind="length"
              :label="`${part.name}, width of its outline`"
              :unit="units.length.name"
              :base="units.length.base"
              optional
              :least="1"
              :most="5000"
              :on-kept="(value) => side(part, 'wide', value)"
            />
          </td>
          <td>
            <select
              v-if="part.pattern"
              class="entry"
              :value="part.pattern.grain"
              :aria-label="`How ${part.name} lies on the sheet`"
              @change="turn(part, ($event.target as HTMLSelectElement).value as Grain)"
            >
              <option v-for="each in GRAINS" :key="each.value" :value="each.value">
                {{ each.title }}
              </option>
            </select>
            <span v-else class="faint">any way</span>
          </td>
        </tr>
      </tbody>
    </v-table>
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
