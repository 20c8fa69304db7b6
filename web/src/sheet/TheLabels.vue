<script setup lang="ts">
import { computed, ref } from 'vue'
import { usePaper } from './usePaper'
import PickList from '../shared/PickList.vue'
import { byName, titled } from '../shared/choices'

const LABELLED = titled({ parts: 'every part aboard', packs: 'packs' })

const GRIDS = [
  { name: 'a4-24', title: 'A4, 24 of 70 x 37 mm' },
  { name: 'a4-21', title: 'A4, 21 of 63.5 x 38.1 mm' },
  { name: 'a4-14', title: 'A4, 14 of 99.1 x 38.1 mm' },
  { name: 'a4-65', title: 'A4, 65 of 38.1 x 21.2 mm' },
  { name: 'letter-30', title: 'Letter, 30 of 2 5/8 x 1 in' },
  { name: 'free', title: 'plain paper, to cut' },
] as const

const { at, paper } = usePaper()
const of = ref<'parts' | 'packs'>('parts')
const grid = ref<(typeof GRIDS)[number]['name']>(paper.value === 'a4' ? 'a4-21' : 'letter-30')
const across = ref(3)
const down = ref(8)
const skip = ref(0)
const address = computed(() =>
  at('labels.pdf', {
    of: of.value,
    grid: grid.value,
    across: String(across.value),
    down: String(down.value),
    skip: String(skip.value),
  }),
)
</script>

<template>
  <section aria-label="Labels">
    <p class="faint small">
      Name, mass with its doubt, how it is known and when it was weighed: for parts in a drawer, and
      for packs.
    </p>
    <div class="fields">
      <label>for <PickList v-model="of" :items="LABELLED" aria-label="Labels for" /></label>
      <label
        >on <PickList v-model="grid" :items="byName(GRIDS)" aria-label="Sheet of labels"
      /></label>
      <template v-if="grid === 'free'">
        <label
          >across
          <v-text-field v-model.number="across" class="entry few" type="number" min="1" max="8"
        /></label>
        <label
          >down
          <v-text-field v-model.number="down" class="entry few" type="number" min="1" max="20"
        /></label>
      </template>
      <label
        >first free place
        <v-text-field
          :model-value="skip + 1"
          class="entry few"
          type="number"
          min="1"
          max="65"
          @change="skip = Math.max(0, Number(($event.target as HTMLInputElement).value) - 1)"
        />
      </label>
    </div>
    <p>
      <v-btn class="press--main" :href="address" target="_blank">Labels, PDF</v-btn>
      <span class="faint small"> print at 100 %, not fitted to the page</span>
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 12px;
  justify-items: start;
}

.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 18px;
  align-items: center;
}

.few {
  width: 72px;
}
</style>
