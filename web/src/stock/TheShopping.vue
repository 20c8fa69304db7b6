<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { answered, api, type Shopping } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { fixed, plainly, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'

const { id, build, changePart } = useBuild()
const { number, units } = useUnits()

const list = useQuery({
  queryKey: computed(() => ['shopping', id.value]),
  queryFn: () =>
    answered<Shopping>(
      api.GET('/api/v1/builds/{build_id}/shopping', { params: { path: { build_id: id.value } } }),
    ),
  refetchOnMount: 'always',
})
watch(
  () => [build.value?.lots, build.value?.parts],
  () => void list.refetch(),
)

const told = computed(() => list.data.value)
const lots = computed(() => new Map(build.value?.lots.map((lot) => [lot.id, lot])))

function amount(lot: string, value: number): string {
  const unit = lots.value.get(lot)?.unit ?? 'piece'
  if (unit === 'piece') return plainly(value, 1)
  const kind = unit === 'dm2' ? 'area' : 'run'
  return `${number(value, kind)} ${units.value[kind].name}`
}

function price(part: string, value: number | null) {
  void changePart(part, (now) => ({ ...now, price: value }))
}

const ONE = { dm2: 'sheet', m: 'roll', piece: 'piece' } as const
const one = (lot: string) => {
  const found = lots.value.get(lot)
  if (found?.kind === 'rod' || found?.kind === 'wood') return 'rod'
  if (found?.kind === 'paint') return 'can'
  if (found?.kind === 'adhesive') return found.holds_g !== null ? 'bottle' : 'stick'
  return ONE[found?.unit ?? 'piece']
}
const money = (value: number | null) => (value === null ? '–' : fixed(value, 2))
</script>

<template>
  <section v-if="told" aria-label="Shopping">
    <p v-if="!told.lots.length && !told.things.length" class="faint">
      Nothing to buy yet: no part is made of a lot, and nothing is aboard that is bought.
    </p>
    <template v-else>
      <div
        class="wide"
        tabindex="0"
        role="group"
        aria-label="A table, wider than the screen perhaps"
      >
        <v-table class="lined">
          <thead class="faint">
            <tr>
              <th>what</th>
              <th class="right">in parts</th>
              <th class="right">with waste</th>
              <th>of one</th>
              <th class="right">at hand</th>
              <th class="right">to buy</th>
              <th class="right">used up</th>
              <th class="right">to pay</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in told.lots" :key="line.lot">
              <td>
                <strong>{{ line.name }}</strong>
              </td>
              <td class="figure right">{{ amount(line.lot, line.used) }}</td>
              <td class="figure right">{{ amount(line.lot, line.wanted) }}</td>
              <td>
                <template v-if="line.sheets !== null">
                  <span class="share" aria-hidden="true"
                    ><span v-for="n in Math.min(Math.ceil(line.sheets), 8)" :key="n" class="sheet"
                      ><span
                        :style="{ width: `${100 * Math.min(line.sheets - n + 1, 1)}%` }" /></span
                  ></span>
                  <span class="figure small"
                    >{{ line.sheets < 0.095 ? fixed(line.sheets, 2) : fixed(line.sheets, 1) }}
                    {{ one(line.lot) }}{{ line.sheets > 1 ? 's' : '' }}</span
                  >
                </template>
                <span v-else class="faint small">its size is not known; say it on the Rack</span>
              </td>
              <td class="figure right">{{ plainly(line.stock) }}</td>
              <td class="figure right buy" :class="{ some: line.to_buy }">
                {{ line.to_buy ?? '–' }}
              </td>
              <td class="figure right">{{ money(line.cost_used) }}</td>
              <td class="figure right">{{ money(line.cost_to_buy) }}</td>
            </tr>
            <tr class="sum">
              <th colspan="6">Airframe</th>
              <td class="figure right">{{ money(told.airframe_cost) }}</td>
              <td />
            </tr>
            <tr v-for="thing in told.things" :key="thing.part">
              <td colspan="6">
                {{ thing.name }}
              </td>
              <td class="right">
                <QuantityCell
                  :value="thing.price"
                  kind="number"
                  optional
                  :label="`Price of ${thing.name}`"
                  @kept="price(thing.part, $event)"
                />
              </td>
              <td />
            </tr>
            <tr class="sum">
              <th colspan="6">Everything</th>
              <td class="figure right">{{ money(told.everything_cost) }}</td>
              <td class="figure right">{{ money(told.to_buy_cost) }}</td>
            </tr>
          </tbody>
        </v-table>
      </div>
      <p v-if="told.unpriced.length" class="small faint">
        Without a price, so not in the sums: {{ told.unpriced.join(', ') }}.
      </p>
      <p class="small">
        Prices are in your own money, as typed on the Rack and in the Drawer.
        <a :href="`/api/v1/builds/${id}/shopping.csv`" download>The list as CSV</a>.
        <router-link :to="{ name: 'buying' }"
          >All that is to buy, tools too, and where it costs least</router-link
        >
      </p>
    </template>
  </section>
  <p v-else-if="list.isError.value" class="faint">
    The list does not come.
    <v-verb @click="list.refetch()">try again</v-verb>
  </p>
  <p v-else class="faint" aria-busy="true">Counting sheets …</p>
</template>

<style scoped>
section {
  display: grid;
  gap: 12px;
}

.share {
  display: inline-flex;
  gap: 3px;
  margin-right: 8px;
}

.sheet {
  width: 26px;
  height: 16px;
  border: 1px solid var(--ink);
  background: var(--paper);
}

.sheet span {
  display: block;
  height: 100%;
  background: var(--tag-line);
}

.some {
  font-weight: 700;
  font-size: 17px;
}

td :deep(.cell) {
  width: 84px;
}

.sum th {
  font-weight: 650;
  font-size: 15px;
}

.sum td,
.sum th {
  border-bottom: 1px solid var(--ink);
}

a {
  color: inherit;
}
</style>
