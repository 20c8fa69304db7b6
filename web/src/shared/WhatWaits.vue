<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { waitingEntries } from './entries'
import { acts } from './acts'
import { outbox } from './outbox'

/** What waits for the workshop, told from whichever place is open. */
const route = useRoute()
const told = computed(() => {
  const readings = outbox.waiting.value.length
  const changes = acts.value.length
  // The Field says so itself, where nothing lies over what a thumb presses.
  const entries =
    route.name === 'field'
      ? 0
      : waitingEntries.value.filter((each) => each.refused === undefined).length
  const parts = [
    readings && `${readings} ${readings === 1 ? 'reading' : 'readings'}`,
    changes && `${changes} ${changes === 1 ? 'change' : 'changes'}`,
    entries && `${entries} ${entries === 1 ? 'entry' : 'entries'} of the field`,
  ].filter(Boolean)
  return parts.length
    ? `${parts.join(' and ')} kept here; sent as soon as the workshop answers`
    : ''
})
</script>

<template>
  <p v-if="told" class="waits" role="status">{{ told }}</p>
</template>

<style scoped>
.waits {
  position: fixed;
  right: 12px;
  bottom: 12px;
  z-index: 29;
  margin: 0;
  padding: 6px 12px;
  font-size: 13px;
  background: var(--paper);
  border: 1px solid var(--ink);
  animation: late 0s 0.6s both;
}

@keyframes late {
  from {
    visibility: hidden;
  }

  to {
    visibility: visible;
  }
}

@media (max-width: 700px) {
  .waits {
    bottom: 136px;
  }
}
</style>
