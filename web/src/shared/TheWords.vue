<script setup lang="ts">
import { useWords } from './useWords'

const { words, tone, undo, hush } = useWords()
</script>

<template>
  <div class="line" aria-live="polite">
    <v-verb v-if="words" class="bare words" :class="tone" @click="hush">
      {{ words }} <span class="faint">close</span>
    </v-verb>
    <v-verb v-if="words && undo" class="bare words back" @click="undo"> Bring it back </v-verb>
  </div>
</template>

<style scoped>
.line {
  position: fixed;
  bottom: 64px;
  left: calc(var(--rule-width) + 16px);
  z-index: 30;
  max-width: min(720px, calc(100vw - var(--rule-width) - 32px));
  display: flex;
}

.words {
  background: var(--paper);
  color: var(--ink);
  border: 2px solid var(--ink);
  padding: 10px 14px;
  text-align: left;
}

.back {
  font-weight: 600;
  border-left: 0;
}

.words.wrong {
  border-color: var(--rust);
  background: var(--rust-wash);
  color: var(--ink);
}

@media (max-width: 700px) {
  .line {
    bottom: 136px;
  }
}
</style>
