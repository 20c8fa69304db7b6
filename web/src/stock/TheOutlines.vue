<script setup lang="ts">
import DrawingDrop from './DrawingDrop.vue'
import DrawingPicture from './DrawingPicture.vue'
import DrawingScale from './DrawingScale.vue'
import ShapeForm from './ShapeForm.vue'
import TemplateForm from './TemplateForm.vue'
import TheOffers from './TheOffers.vue'
import TheTiles from './TheTiles.vue'
import { openCandidates } from './useCandidates'
import WhatWasRead from './WhatWasRead.vue'

const { outlines, drawn, file, busy, wrong, layers, pressLayer, putTogether, measure, add } =
  openCandidates()
</script>

<template>
  <div class="outlines">
    <section class="sheet" aria-label="Drawing">
      <DrawingDrop />
      <p v-if="busy" class="faint" aria-busy="true">Reading {{ file?.name }} …</p>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <TheTiles
        v-if="outlines && outlines.pages > 1"
        :pages="outlines.pages"
        @put="(columns, overlap) => putTogether(columns, overlap)"
      />
      <DrawingScale v-if="outlines" />
      <DrawingPicture v-if="drawn.length" :offers="drawn" />
      <p v-if="layers.length > 1" class="layers small">
        <span class="faint">layers</span>
        <v-verb v-for="layer in layers" :key="layer" @click="pressLayer(layer)">
          {{ layer || 'none' }}
        </v-verb>
      </p>
      <WhatWasRead />
      <ShapeForm :measure="measure" @add="add($event)" />
      <TemplateForm @add="(part, doubt) => add(part, doubt)" />
    </section>
    <TheOffers />
  </div>
</template>

<style scoped>
.outlines {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
  gap: 32px;
}

.sheet {
  display: grid;
  gap: 14px;
  align-content: start;
}

.layers {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}

@media (max-width: 1000px) {
  .outlines {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
