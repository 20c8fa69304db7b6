<script setup lang="ts">
import { useBuild } from '../shared/useBuild'
import { panWords } from './panWords'
import { useBench } from './useBench'
import { useReading } from './useReading'

const { build } = useBuild()
const { pan, isEmpty, recordSteady, simulated, putNext } = useBench()
const { shown, unit, lamp } = useReading()
</script>

<template>
  <div class="bar">
    <span class="what">
      <strong class="figure">{{ shown }} {{ unit }}</strong>
      <small>{{ isEmpty ? 'the pan is empty' : panWords(pan, build) }}; {{ lamp.words }}</small>
    </span>
    <v-btn v-if="isEmpty" @click="putNext">Weigh next</v-btn>
    <v-btn v-else-if="simulated" class="press--main" @click="recordSteady">Record</v-btn>
    <v-btn v-else class="press--main" href="#typed">Type it</v-btn>
  </div>
</template>

<style scoped>
.bar {
  position: fixed;
  inset: auto 0 0 var(--rule-width);
  z-index: 15;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  padding: 8px 14px;
  background: var(--paper);
  border-top: 1px solid var(--ink);
}

.what {
  min-width: 0;
}

strong {
  font-size: 24px;
  line-height: 1.1;
  display: block;
}

small {
  display: block;
  font-size: 12px;
  color: var(--faint);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

@media (max-width: 700px) {
  .bar {
    bottom: 56px;
  }
}
</style>
