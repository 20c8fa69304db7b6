<script setup lang="ts">
import { computed } from 'vue'
import ChoiceChip from '../shared/ChoiceChip.vue'
import { useBuild } from '../shared/useBuild'
import { toggled } from './toggled'

/** The parts that are made of something, under what they are made of. */
const chosen = defineModel<string[]>({ required: true })
const { build } = useBuild()

const groups = computed(() =>
  (build.value?.lots ?? []).flatMap((lot) => {
    const parts = (build.value?.parts ?? []).filter(
      (part) => !part.retired && part.uses[0]?.lot === lot.id,
    )
    return parts.length ? [{ lot, parts }] : []
  }),
)

function pressGroup(parts: string[]) {
  const all = parts.every((part) => chosen.value.includes(part))
  const rest = chosen.value.filter((part) => !parts.includes(part))
  chosen.value = all ? rest : [...rest, ...parts]
}
</script>

<template>
  <section aria-label="Parts to make another way">
    <h2>Which parts?</h2>
    <p v-if="!groups.length" class="faint">
      No part is made of a lot yet. Give parts their sheet, tape or glue on the Plan, or cut them
      from outlines.
    </p>
    <div v-for="{ lot, parts } in groups" :key="lot.id" class="group">
      <v-verb class="bare" @click="pressGroup(parts.map((part) => part.id))">
        <strong>{{ lot.name }}</strong> <span class="faint small under">all</span>
      </v-verb>
      <div class="chips">
        <ChoiceChip
          v-for="part in parts"
          :key="part.id"
          :on="chosen.includes(part.id)"
          @click="chosen = toggled(chosen, part.id)"
          >{{ part.name }}</ChoiceChip
        >
      </div>
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  align-content: start;
}

.group {
  display: grid;
  gap: 4px;
  justify-items: start;
}

.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
