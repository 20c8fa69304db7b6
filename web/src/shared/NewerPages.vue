<script setup lang="ts">
import { onBeforeUnmount, watch } from 'vue'
import { acts } from './acts'
import { newer, openNewer } from './newerPages'
import { isTyping } from './useKeys'

/** The workshop was renewed under this page: it opens anew as soon as nobody is in the middle of
 * something. What waits is kept on this device and goes on from there. */
const LOOK_MS = 1000
let looking: ReturnType<typeof setInterval> | undefined

function isCalm(): boolean {
  if (acts.value.length || document.querySelector('[role="dialog"]')) return false
  return !isTyping(document.activeElement)
}

watch(newer, () => {
  clearInterval(looking)
  looking = setInterval(() => isCalm() && openNewer(), LOOK_MS)
})
onBeforeUnmount(() => clearInterval(looking))
</script>

<template>
  <p v-if="newer" class="newer" role="status">
    The workshop was renewed; this page follows when you are done.
    <v-verb class="bare" @click="openNewer">Now</v-verb>
  </p>
</template>

<style scoped>
.newer {
  position: fixed;
  right: 12px;
  bottom: 48px;
  z-index: 29;
  margin: 0;
  padding: 6px 12px;
  font-size: 13px;
  background: var(--paper);
  border: 1px solid var(--ink);
}

.newer button {
  text-decoration: underline;
}

@media (max-width: 700px) {
  .newer {
    bottom: 176px;
  }
}
</style>
