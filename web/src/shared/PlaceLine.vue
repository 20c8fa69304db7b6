<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { lineOf } from '../say/places'
import { usePlaceLines } from './usePlaceLines'

const route = useRoute()
const { isShown, hide } = usePlaceLines()
const line = computed(() => lineOf(String(route.name ?? ''), String(route.query['on'] ?? '')))
</script>

<template>
  <p v-if="isShown && line" class="what small not-printed">
    <span>{{ line }}</span>
    <v-verb class="faint" @click="hide">hide these lines</v-verb>
  </p>
</template>

<style scoped>
.what {
  display: flex;
  gap: 18px;
  justify-content: space-between;
  align-items: center;
  margin: 0;
  padding: 0 24px;
  min-height: 29px;
  box-sizing: border-box;
  border-bottom: 1px solid var(--line);
}

button {
  white-space: nowrap;
}

@media (max-width: 700px) {
  .what {
    padding: 2px 14px;
    gap: 10px;
  }
}
</style>
