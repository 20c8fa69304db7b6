<script setup lang="ts">
import { letGo } from '../shared/entries'
import { useField } from './useField'

/** What the workshop could not keep: it stays here, in words, until somebody has read it. */
const { refused } = useField()
const NAMES: Record<string, string> = {
  throw: 'A throw',
  flight: 'A flight',
  tick: 'A tick',
  note: 'A note',
  own_line: 'A line',
  bent: 'A setting',
  set_aside: 'Setting aside',
}
</script>

<template>
  <ul v-if="refused.length" aria-label="Not kept" role="alert">
    <li v-for="each in refused" :key="each.key">
      <span>{{ NAMES[each.entry.entry] }} was not kept: {{ each.refused }}</span>
      <v-verb @click="letGo(each.key)">let it go</v-verb>
    </li>
  </ul>
</template>

<style scoped>
ul {
  padding: 8px 18px;
  background: var(--rust-wash);
}

li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 14px;
  min-height: 44px;
}
</style>
