<script setup lang="ts">
import { computed } from 'vue'
import { inSentence } from '../say/names'
import { useWeighNext } from '../say/weighNext'
import { useBuild } from '../shared/useBuild'
import { useBench } from './useBench'

const { what, why } = useWeighNext()
const { assessment } = useBuild()
const { next, putNext } = useBench()

const then = computed(() =>
  (assessment.value?.weigh_next ?? [])
    .slice(1)
    .map((each) => inSentence(what(each)))
    .join(', '),
)
</script>

<template>
  <div v-if="next" class="next">
    <div class="head">
      <h2>Weigh next: {{ what(next) }}</h2>
      <v-verb class="bare" aria-label="Put it on the pan" @click="putNext">
        <kbd>N</kbd>
      </v-verb>
    </div>
    <p>{{ why(next) }}</p>
    <p v-if="then" class="faint small">then: {{ then }}</p>
  </div>
</template>

<style scoped>
.next {
  border-top: 1px solid var(--ink);
  margin-top: 14px;
  padding-top: 12px;
}

.head {
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: 8px;
}

.next p {
  margin-top: 4px;
}

.small {
  font-size: 13px;
}
</style>
