<script setup lang="ts">
import { useWords } from './useWords'

const { words, tone, undo, hush } = useWords()
</script>

<template>
  <div class="line" aria-live="polite">
    <button v-if="words" type="button" class="words" :class="tone" @click="hush">
      {{ words }} <span class="faint">close</span>
    </button>
    <button v-if="words && undo" type="button" class="words back" @click="undo">
      Bring it back
    </button>
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
  font: inherit;
  text-align: left;
  cursor: pointer;
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
