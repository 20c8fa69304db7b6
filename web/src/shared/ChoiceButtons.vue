<script setup lang="ts" generic="Name extends string">
/** One of a few, by one press of a thumb; pressing it again takes it back where that may be. */
const props = defineProps<{
  options: readonly { name: Name; title: string }[]
  label: string
  optional?: boolean
  columns?: number
}>()
const chosen = defineModel<Name | null>({ required: true })

function press(name: Name) {
  chosen.value = props.optional && chosen.value === name ? null : name
}
</script>

<template>
  <div
    role="group"
    :aria-label="label"
    :style="columns ? { display: 'grid', gridTemplateColumns: `repeat(${columns}, 1fr)` } : {}"
  >
    <button
      v-for="each in options"
      :key="each.name"
      type="button"
      :aria-pressed="chosen === each.name"
      @click="press(each.name)"
    >
      {{ each.title }}
    </button>
  </div>
</template>

<style scoped>
div {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

button {
  min-height: 46px;
  padding: 2px 5px;
  font: inherit;
  font-weight: 600;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--ink);
  cursor: pointer;
}

button[aria-pressed='true'] {
  color: var(--linen);
  background: var(--ink);
}
</style>
