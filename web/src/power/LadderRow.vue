<script setup lang="ts">
import type { Rung } from './useLadders'

/** One part of the drive against what it stands, as a ladder where there is a `share`. */
defineProps<{ row: Rung; share?: number }>()
</script>

<template>
  <li :data-rung="row.rung">
    <span class="head">
      <span>{{ row.title }}</span>
      <span class="figure">{{ row.figure }}</span>
    </span>
    <span v-if="share !== undefined" class="ladder" aria-hidden="true">
      <span class="care" />
      <span class="now" :style="{ width: `${Math.min(share, 1.25) * 80}%` }" />
      <span class="rung" />
    </span>
    <span class="small" :class="row.rung === 'over' ? 'wrong' : 'faint'">{{ row.words }}</span>
  </li>
</template>

<style scoped>
li {
  display: grid;
  gap: 3px;
  font-size: 14px;
}

.head {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}

.head .figure {
  white-space: nowrap;
}

.ladder {
  position: relative;
  height: 10px;
  background: var(--line);
}

.care {
  position: absolute;
  left: 64%;
  width: 16%;
  height: 100%;
  background: var(--brass);
  opacity: 0.45;
}

.now {
  position: absolute;
  top: 3px;
  height: 4px;
  background: var(--sea);
}

li[data-rung='over'] .now {
  background: var(--rust);
}

.rung {
  position: absolute;
  left: 80%;
  top: -3px;
  width: 3px;
  height: 16px;
  background: var(--ink);
}
</style>
