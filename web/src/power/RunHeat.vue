<script setup lang="ts">
import type { Run } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { useDrive } from './useDrive'

const props = defineProps<{ run: Run }>()
const { amendRun } = useDrive()

const FELT = [
  { key: 'motor_c', name: 'motor' },
  { key: 'controller_c', name: 'controller' },
  { key: 'pack_c', name: 'pack' },
  { key: 'air_c', name: 'air' },
] as const
</script>

<template>
  <details class="small">
    <summary>how warm after it, °C</summary>
    <p class="felt">
      <label v-for="each in FELT" :key="each.key"
        >{{ each.name }}
        <QuantityCell
          :value="props.run[each.key]"
          kind="number"
          :label="`${each.name} after the run, °C`"
          optional
          :digits="0"
          @kept="(celsius) => amendRun(props.run.id, { [each.key]: celsius })"
      /></label>
    </p>
  </details>
</template>

<style scoped>
.felt {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  margin: 4px 0;
}

label {
  display: grid;
  color: var(--faint);
}
</style>
