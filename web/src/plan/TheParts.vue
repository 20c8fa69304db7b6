<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Item } from '../api/client'
import TheMark from '../shared/TheMark.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import PartLine from './PartLine.vue'
import { PEDIGREES } from './usePartLine'

const { build, assessment } = useBuild()
const { quantity, number, units } = useUnits()

const editing = ref<string | null>(null)
const masses = computed(() => new Map(assessment.value?.items.map((mass) => [mass.id, mass])))
const parts = computed(() => build.value?.items.filter((item) => !item.retired) ?? [])
const retired = computed(() => build.value?.items.filter((item) => item.retired) ?? [])

// A part that is gone closes its line: brought back, it stands there as it was.
watch(parts, (all) => {
  if (!all.some((item) => item.id === editing.value)) editing.value = null
})

const LOT_SHOWN = { dm2: 'area', m: 'run' } as const

function basis(item: Item): string {
  const use = item.uses[0]
  const lot = build.value?.lots.find((each) => each.id === use?.lot)
  if (use && lot) {
    const amount =
      lot.unit === 'piece' ? `${use.amount}` : quantity(use.amount, LOT_SHOWN[lot.unit])
    return `${amount} of ${lot.name}`
  }
  return item.stated_g === null ? '4 % of the rest' : quantity(item.stated_g, 'mass')
}

function known(item: Item): string {
  return PEDIGREES.find((each) => each.value === item.pedigree)?.title ?? item.pedigree
}

/** The station by both references; the one that was typed is set in ink. */
function stations(item: Item): { text: string; typed: boolean }[] {
  const mass = masses.value.get(item.id)
  return [
    { at: mass?.x_from_nose_mm, typed: item.station?.reference === 'nose' },
    { at: mass?.x_from_leading_edge_mm, typed: item.station?.reference === 'leading_edge' },
  ].map(({ at, typed }) => ({ text: typeof at === 'number' ? number(at, 'length') : '', typed }))
}

function isAdrift(item: Item): boolean {
  return !item.station && item.pedigree !== 'allowance'
}
</script>

<template>
  <section aria-label="Parts">
    <div class="head">
      <h2>Parts</h2>
      <span class="faint small"
        >one line each; Enter keeps it and starts the next. Lengths in {{ units.length.name }}, aft,
        to starboard, up.</span
      >
    </div>
    <div class="wide">
      <table class="lined">
        <thead class="faint">
          <tr>
            <th>part</th>
            <th>assembly</th>
            <th>known by</th>
            <th>figure</th>
            <th>pieces</th>
            <th class="right">from nose</th>
            <th class="right">from leading edge</th>
            <th>side</th>
            <th>up</th>
            <th>option</th>
            <th class="now">now</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="item in parts" :key="item.id">
            <PartLine v-if="editing === item.id" :item="item" @done="editing = null" />
            <tr v-else class="part">
              <td>
                <button
                  type="button"
                  class="plainly name"
                  :aria-label="`Change ${item.name}`"
                  @click="editing = item.id"
                >
                  <template v-if="item.host">↳ </template>{{ item.name }}
                </button>
              </td>
              <td class="faint">{{ item.assembly }}</td>
              <td>{{ known(item) }}</td>
              <td class="figure basis" :title="basis(item)">{{ basis(item) }}</td>
              <td class="figure">{{ item.pieces > 1 ? item.pieces : '' }}</td>
              <td v-if="isAdrift(item)" colspan="2" class="wrong">not placed</td>
              <td
                v-for="(from, at) in isAdrift(item) ? [] : stations(item)"
                :key="at"
                class="figure right"
                :class="{ faint: !from.typed }"
              >
                {{ from.text }}
              </td>
              <td class="figure">
                {{ item.station?.y_mm ? number(item.station.y_mm, 'length') : '' }}
              </td>
              <td class="figure">
                {{ item.station?.z_mm ? number(item.station.z_mm, 'length') : '' }}
              </td>
              <td>{{ item.option ? 'yes' : '' }}</td>
              <td class="now">
                <template v-if="masses.get(item.id)">
                  <TheMark :mark="masses.get(item.id)!.mark" />
                  <span class="figure"
                    >{{ number(masses.get(item.id)!.mass_g, 'mass') }}
                    <span class="faint"
                      >±{{ number(2 * masses.get(item.id)!.sd_g, 'mass') }}</span
                    ></span
                  >
                </template>
              </td>
            </tr>
          </template>
          <PartLine />
        </tbody>
      </table>
    </div>
    <p v-if="retired.length" class="faint small">
      Retired: {{ retired.map((item) => item.name).join(', ') }}. Their readings still speak for
      what they were weighed with.
    </p>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  margin-bottom: 6px;
}

.basis {
  max-width: 250px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

.name {
  font-weight: 600;
  white-space: nowrap;
}

.name:hover {
  text-decoration: underline;
}

.now {
  white-space: nowrap;
  text-align: right;
}

.now :deep(.mark) {
  vertical-align: -4px;
  margin-right: 4px;
  width: 15px;
}

.part:hover td {
  background: var(--sea-wash);
}
</style>
