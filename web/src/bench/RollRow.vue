<script setup lang="ts">
/** One row of the till roll: when, what lay on the pan, and what the scale showed. */
defineProps<{ when: string; words: string; grams: string; aside?: boolean }>()
</script>

<template>
  <li :class="{ aside }">
    <span class="figure when faint">{{ when }}</span>
    <span class="what"
      ><span class="words">{{ words }}</span
      ><slot
    /></span>
    <span class="figure grams">{{ grams }}</span>
    <slot name="beside" />
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 46px minmax(0, 1fr) auto;
  gap: 0 6px;
  padding: 7px 0 5px;
  border-bottom: 1px solid var(--line);
  align-items: baseline;
  position: relative;
}

.when {
  font-size: 13px;
}

.what {
  line-height: 1.3;
  font-size: 14px;
}

:slotted(small) {
  display: block;
  font-size: 12px;
  color: var(--faint);
}

.grams {
  font-weight: 700;
  font-size: 15px;
}

.aside .words,
.aside .grams {
  text-decoration: line-through;
  color: var(--faint);
  font-weight: 500;
}
</style>
