<script setup lang="ts">
import { ref } from 'vue'
import { useCandidates } from './useCandidates'

const { read } = useCandidates()

const chooser = ref<HTMLInputElement>()
const over = ref(false)

function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const picked = input.files?.[0]
  input.value = ''
  if (picked) void read(picked)
}

function drop(event: DragEvent) {
  over.value = false
  const picked = event.dataTransfer?.files[0]
  if (picked) void read(picked)
}
</script>

<template>
  <div
    class="drop"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <v-btn class="press--main" @click="chooser?.click()">Read a drawing</v-btn>
    <span class="faint small"
      >SVG, DXF or a PDF plan, or drop one here. Nothing is kept until you say so.</span
    >
    <input
      ref="chooser"
      type="file"
      accept=".svg,.dxf,.pdf,image/svg+xml,application/pdf"
      hidden
      aria-label="Drawing"
      @change="choose"
    />
  </div>
</template>

<style scoped>
.drop {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  border: 1px dashed var(--faint);
  padding: 12px;
}

.over {
  background: var(--sea-wash);
  border-style: solid;
}
</style>
