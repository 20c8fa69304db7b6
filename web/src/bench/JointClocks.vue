<script setup lang="ts">
import { inSentence } from '../say/names'
import { ref } from 'vue'
import JointSheet from './JointSheet.vue'
import SpreadSheet from './SpreadSheet.vue'
import { useJoints } from './useJoints'

const { clocks, free } = useJoints()
const spreading = ref(false)
const opened = ref<string | null>(null)

defineExpose({ spread: () => (spreading.value = true) })
</script>

<template>
  <footer aria-label="Joint clocks">
    <v-verb class="bare start" @click="spreading = true"> Spread a joint <kbd>J</kbd> </v-verb>
    <button
      v-for="clock in clocks"
      :key="clock.joint.id"
      type="button"
      class="plainly clock"
      :data-joint="clock.joint.id"
      @click="opened = clock.joint.id"
    >
      <strong>{{ clock.joint.name }}</strong>
      <span class="glue">{{ inSentence(clock.joint.adhesive) }}</span>
      <span class="figure time">{{ clock.words }}</span>
    </button>
    <span v-if="clocks.length && free.length" class="meanwhile">
      meanwhile: weigh {{ free.map(inSentence).join(', ') }}
    </span>
    <SpreadSheet v-model="spreading" />
    <JointSheet v-model="opened" />
  </footer>
</template>

<style scoped>
footer {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 26px;
  min-height: 48px;
  padding: 6px 20px;
  background: var(--foot);
  color: var(--foot-text);
  font-size: 14px;
}

footer :focus-visible {
  outline-color: var(--foot-text);
}

.clock {
  display: inline-flex;
  gap: 8px;
  align-items: baseline;
}

.clock:hover strong {
  text-decoration: underline;
}

.glue,
.meanwhile {
  opacity: 0.85;
}

.time {
  color: var(--foot-brass);
  font-size: 15px;
}
</style>
