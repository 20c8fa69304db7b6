<script setup lang="ts">
/** A list of the drive's things under its title, each a `.thing`; `.verbs` stand side by side. */
defineProps<{ title: string }>()
</script>

<template>
  <div class="list">
    <h3>{{ title }}</h3>
    <slot />
  </div>
</template>

<style scoped>
.list {
  display: grid;
  gap: 8px;
  justify-items: start;
  width: 100%;
}

h3 {
  font-size: 15px;
  margin: 8px 0 0;
}

.list :deep(.thing) {
  display: grid;
  gap: 4px;
  width: 100%;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  justify-items: start;
}

.list :deep(.verbs) {
  display: flex;
  gap: 12px;
  align-items: center;
}

/* Three figures with their units on one line. */
.list :deep(.thing > span .cell) {
  width: 60px;
}

.list :deep(label .pick) {
  max-width: 190px;
}
</style>
