<script setup lang="ts">
import { computed } from 'vue'
import type { Group } from '../api/client'
import PickList from '../shared/PickList.vue'
import { useBuild } from '../shared/useBuild'

/** What nobody has sorted: what counts as the rest first, then what its name says. */
const { groups } = defineProps<{ groups: { value: Group; title: string }[] }>()
const { assessment, changePart, nameOf } = useBuild()

const guessed = computed(() => {
  const all = assessment.value?.guessed_groups ?? []
  const of = (isRest: boolean) => all.filter((each) => (each.group === 'rest') === isRest)
  return [
    { title: 'Counted as the rest until somebody says', parts: of(true) },
    { title: 'Sorted by their names', parts: of(false) },
  ].filter(({ parts }) => parts.length)
})

function sort(part: string, group: string) {
  void changePart(part, (now) => ({ ...now, group: group as Group }))
}
</script>

<template>
  <section v-for="{ title, parts } in guessed" :key="title" :aria-label="title">
    <h3>{{ title }}</h3>
    <div class="parts">
      <label v-for="{ part, group } in parts" :key="part" class="small"
        >{{ nameOf(part) }}
        <PickList
          :model-value="group === 'rest' ? '' : group"
          :items="group === 'rest' ? [{ value: '', title: 'belongs to' }, ...groups] : groups"
          :aria-label="`${nameOf(part)} belongs to`"
          @update:model-value="sort(part, $event)"
      /></label>
    </div>
  </section>
</template>

<style scoped>
section {
  min-width: 0;
}

.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  margin-top: 8px;
}
</style>
