<script setup lang="ts">
import { computed } from 'vue'
import { inUnitsBut } from '../say/inUnits'
import { useWords } from './useWords'

const { words, tone, undo, names, hush } = useWords()
const inUnits = inUnitsBut(() => names.value)
/** What the workshop refuses it says in base units, and of a body by its path too. */
const shown = computed(() =>
  tone.value === 'wrong' ? inUnits(words.value.replace(/^bodies\.\S+ /, '')) : words.value,
)
</script>

<template>
  <div class="line" aria-live="polite">
    <button v-if="words" type="button" class="words" :class="tone" @click="hush">
      {{ shown }} <span class="faint">close</span>
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
