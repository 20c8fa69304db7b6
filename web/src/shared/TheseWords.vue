<script setup lang="ts">
import { TERMS, type Term } from '../say/places'

/** Words that stand here, explained here. */
defineProps<{ of: readonly Term[] }>()
</script>

<template>
  <details class="small words">
    <summary class="faint">{{ of.length === 1 ? `what “${of[0]}” means` : 'these words' }}</summary>
    <dl>
      <template v-for="term in of" :key="term">
        <dt>{{ term }}</dt>
        <dd>{{ TERMS[term] }}</dd>
      </template>
    </dl>
  </details>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: max-content minmax(0, 60ch);
  gap: 4px 14px;
  margin: 4px 0;
}

dt {
  font-weight: 600;
}

@media (max-width: 700px) {
  dl {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
}
</style>
