<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { useBeginnings } from '../shared/useBeginnings'

/** What could be read of a workshop whose file was damaged, until it is put away. */
const beginnings = useBeginnings()
const seen = useLocalStorage('oaken-scale-rescued', '')
</script>

<template>
  <p v-if="beginnings?.rescued && seen !== beginnings.rescued" class="saved" role="status">
    <span
      ><strong>This workshop was saved from a damaged file.</strong> Look through the builds.
      {{ beginnings.rescued.charAt(0).toUpperCase() + beginnings.rescued.slice(1) }}.</span
    >
    <v-btn size="small" @click="seen = beginnings.rescued">I have seen it</v-btn>
  </p>
</template>

<style scoped>
.saved {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  justify-content: space-between;
  border-left: 4px solid var(--rust);
  padding: 8px 12px;
  margin-bottom: 14px;
  overflow-wrap: anywhere;
}
</style>
