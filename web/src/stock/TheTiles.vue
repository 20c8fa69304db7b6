<script setup lang="ts">
import { ref } from 'vue'
import { useUnits } from '../shared/units'

/** Pages of one plan that was printed in tiles: how they lie, to be put together. */
defineProps<{ pages: number }>()
const emit = defineEmits<{ put: [columns: string, overlap: string] }>()
const { units } = useUnits()
const columns = ref('')
const overlap = ref('')
</script>

<template>
  <form class="tiles small" @submit.prevent="emit('put', columns, overlap)">
    <span>{{ pages }} pages. Are they tiles of one plan?</span>
    <label
      >columns
      <v-text-field
        v-model="columns"
        class="entry figure few"
        aria-label="Columns of tiles"
        inputmode="numeric"
    /></label>
    <label
      >overlapping by
      <v-text-field
        v-model="overlap"
        class="entry figure few"
        aria-label="Overlap of tiles"
        inputmode="decimal"
        placeholder="0"
      />
      {{ units.length.name }}</label
    >
    <v-btn size="small" type="submit" :disabled="!columns.trim()">Put them together</v-btn>
  </form>
</template>

<style scoped>
.tiles {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  border-left: 4px solid var(--line);
  padding-left: 12px;
}

.few {
  width: 64px;
}
</style>
