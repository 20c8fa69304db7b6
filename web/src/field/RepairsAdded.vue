<script setup lang="ts">
import { computed } from 'vue'
import { useUnits } from '../shared/units'
import { useField } from './useField'

/** What repairs and new parts have added since it was built. */
const { field } = useField()
const { quantity } = useUnits()

const repairs = computed(() => field.value?.told.looking_back.repairs ?? [])
const byThen = computed(() => repairs.value.at(-1)?.by_then_g ?? 0)
</script>

<template>
  <template v-if="repairs.length">
    <h3>What repairs and new parts have added</h3>
    <ol>
      <li v-for="each in repairs" :key="each.at + each.words">
        <span
          >{{ new Date(each.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' }) }},
          {{ each.words }}</span
        >
        <span class="figure"
          >{{ each.added_g > 0 ? '+' : '' }}{{ quantity(each.added_g, 'mass') }}</span
        >
      </li>
    </ol>
    <p class="small">
      {{ quantity(Math.abs(byThen), 'mass') }} {{ byThen < 0 ? 'lighter' : 'heavier' }} by them than
      it was built.
    </p>
  </template>
</template>

<style scoped>
li {
  display: flex;
  justify-content: space-between;
  gap: 14px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
</style>
