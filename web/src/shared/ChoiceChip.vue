<script setup lang="ts">
/** One of several things that may be chosen together. */
defineProps<{ on: boolean }>()
</script>

<template>
  <v-verb class="bare chip" :class="{ on }" :aria-pressed="on"><slot /></v-verb>
</template>

<style scoped>
.chip {
  border: 1px solid var(--tag-line);
  padding: 5px 9px;
  font-size: 14px;
}

.chip:hover {
  background: var(--sea-wash);
}

.on {
  background: var(--tag);
  border-color: var(--ink);
  box-shadow: inset 0 -3px 0 var(--brass);
}
</style>
