<script setup lang="ts">
/** The views of a place, one of them here; `?on=` in the address says which. */
defineProps<{ views: readonly { name: string; title: string }[]; here: string; label: string }>()
</script>

<template>
  <nav :aria-label="label">
    <router-link
      v-for="each in views"
      :key="each.name"
      :to="{ query: { on: each.name } }"
      :class="{ here: each.name === here }"
      :aria-current="each.name === here ? 'page' : undefined"
      replace
      >{{ each.title }}</router-link
    >
    <slot />
  </nav>
</template>

<style scoped>
nav {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 22px;
  border-bottom: 1px solid var(--ink);
}

a {
  color: var(--faint);
  text-decoration: none;
  padding: 6px 0 5px;
}

a:hover {
  color: var(--ink);
}

.here {
  color: var(--ink);
  font-weight: 600;
  border-bottom: 4px solid var(--brass);
  margin-bottom: -2px;
}
</style>
