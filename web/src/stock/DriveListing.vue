<script setup lang="ts">
import { computed } from 'vue'
import type { DrawerThing, NewThing } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'

/** What Power wants to know of a pack or a motor, to try it on a plane. */
const props = defineProps<{ thing: DrawerThing['thing'] }>()
const emit = defineEmits<{ said: [patch: Partial<NewThing>] }>()

const fields = computed(() =>
  props.thing.kind === 'pack'
    ? ([
        { key: 'cells', unit: 'cells' },
        { key: 'capacity_mah', unit: 'mAh' },
        { key: 'c_rating', unit: 'C' },
      ] as const)
    : ([
        { key: 'kv', unit: 'rpm/V' },
        { key: 'most_a', unit: 'A at most' },
      ] as const),
)
</script>

<template>
  <span class="small listing">
    <label v-for="each in fields" :key="each.key">
      <QuantityCell
        :value="thing[each.key]"
        kind="number"
        optional
        :digits="each.key === 'most_a' ? 1 : 0"
        :label="`${thing.name}, ${each.unit}`"
        @kept="
          emit('said', { [each.key]: each.key === 'cells' && $event ? Math.round($event) : $event })
        "
      />
      {{ each.unit }}</label
    >
  </span>
</template>

<style scoped>
.listing {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
}

.listing :deep(.cell) {
  width: 56px;
}
</style>
