<script setup lang="ts">
import type { Mark } from '../api/client'

defineProps<{ mark: Mark }>()

const WORDS: Record<Mark, string> = {
  guess: 'a guess',
  listed: 'listed or calculated',
  difference: 'known by difference',
  weighed: 'weighed',
}
</script>

<template>
  <svg class="mark" viewBox="-9 -9 18 18" role="img" :aria-label="WORDS[mark]" :data-mark="mark">
    <circle r="7.2" class="ring" :class="mark" />
    <path v-if="mark === 'listed'" d="M0 -7.2 A7.2 7.2 0 0 0 0 7.2 Z" class="fill" />
    <path v-if="mark === 'difference'" d="M0 0 L0 -7.2 A7.2 7.2 0 1 1 -7.2 0 Z" class="fill" />
    <circle v-if="mark === 'weighed'" r="7.2" class="fill" />
  </svg>
</template>

<style scoped>
.mark {
  width: 18px;
  height: 18px;
  flex: none;
}

.ring {
  fill: none;
  stroke: var(--sea);
  stroke-width: 1.6;
}

.ring.guess {
  stroke-dasharray: 1.8 2.2;
}

.fill {
  fill: var(--sea);
}
</style>
