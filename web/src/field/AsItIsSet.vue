<script setup lang="ts">
import { computed } from 'vue'
import { goesSideways, useFieldWords } from '../say/field'
import { useBuild } from '../shared/useBuild'
import { useField } from './useField'

/** What is bent before a throw, by half a millimetre; with `all`, every control and not the tabs
 * alone. */
const props = defineProps<{ all: boolean }>()

const { controls, bend } = useField()
const { build } = useBuild()
const words = useFieldWords()

const fins = computed(
  () => new Set((build.value?.surfaces ?? []).filter((s) => s.role === 'fin').map((s) => s.id)),
)
const shown = computed(() => {
  const [tabs, others] = [true, false].map((isTab) =>
    controls.value.filter((each) => (each.kind === 'tab') === isTab),
  )
  return [...(tabs ?? []), ...(props.all ? (others ?? []) : [])]
})
</script>

<template>
  <div v-if="shown.length" class="tabs" aria-label="As it is set">
    <p v-for="each in shown" :key="each.id">
      <span>{{ each.name }}</span>
      <v-btn
        class="step"
        :aria-label="`${each.name}: half a millimetre less`"
        @click="bend(each.id, each.set_mm - 0.5)"
      >
        −
      </v-btn>
      <strong class="figure">{{ words.setting(each.set_mm, goesSideways(each, fins)) }}</strong>
      <v-btn
        class="step"
        :aria-label="`${each.name}: half a millimetre more`"
        @click="bend(each.id, each.set_mm + 0.5)"
      >
        +
      </v-btn>
    </p>
  </div>
</template>

<style scoped>
.tabs {
  display: grid;
  gap: 4px;
}

.tabs p {
  display: grid;
  grid-template-columns: 1fr 44px 104px 44px;
  align-items: center;
  text-align: center;
}

.tabs p > span {
  text-align: left;
}

.step {
  width: 44px;
  min-width: 44px;
  height: 44px;
  padding: 0;
  font-size: 22px;
  font-weight: 400;
}
</style>
