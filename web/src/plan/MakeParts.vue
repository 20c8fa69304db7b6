<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { useWords } from '../shared/useWords'
import type { Draft } from './useDraft'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const LAYERS = [
  { value: 1, title: 'single' },
  { value: 2, title: 'folded over, double' },
]

/** The parts that a surface or a body is made of: made once, then as the drawing until cut. */
const props = defineProps<{
  drawing: Draft
  id: string
  name: string
  usualLayers?: number
  runs?: boolean
}>()
const { build, assessment } = useBuild()
const words = useWords()

const lots = computed(() =>
  (build.value?.lots ?? []).filter(
    (each) => each.unit === 'dm2' || (props.runs && each.unit === 'm' && each.kind === 'rod'),
  ),
)
const lot = ref('')
const layers = ref(1)
watch(
  () => [props.id, props.usualLayers],
  () => (layers.value = props.usualLayers ?? 1),
  { immediate: true },
)
watch(
  lots,
  (all) => {
    if (!all.some((each) => each.id === lot.value)) lot.value = all[0]?.id ?? ''
  },
  { immediate: true },
)
const isSheet = computed(() => lots.value.find((each) => each.id === lot.value)?.unit === 'dm2')

const made = computed(() => assessment.value?.drawn.filter((each) => each.of === props.id) ?? [])
const following = computed(() => made.value.filter((each) => !each.is_cut))

const makeParts = once(async () => {
  if (await props.drawing.parts(lot.value, isSheet.value ? layers.value : 1))
    words.say(`${props.name} is on the list of parts, with its area and where it sits.`)
})
async function areCut() {
  if (await props.drawing.cut(following.value.map((each) => each.part)))
    words.say(`${props.name} is cut: its parts stay as they are, whatever is drawn.`)
}
</script>

<template>
  <div class="parts">
    <p v-if="lots.length" class="line">
      <v-btn @click="makeParts">Make parts of it</v-btn>
      <label
        >of <PickList v-model="lot" :items="named(lots)" :aria-label="`What ${name} is cut from`"
      /></label>
      <label v-if="isSheet"
        ><PickList v-model="layers" :items="LAYERS" aria-label="Layers"
      /></label>
    </p>
    <p v-else class="faint small">
      Take a sheet from the
      <router-link :to="{ name: 'stock', query: { on: 'rack' } }">rack</router-link>, and this makes
      its parts.
    </p>
    <p v-if="made.length" class="line small" data-test="follows">
      <template v-if="following.length">
        <span
          >{{ following.length === 1 ? '1 part follows' : `${following.length} parts follow` }} it,
          until cut or weighed.</span
        >
        <v-verb @click="areCut">they are cut</v-verb>
      </template>
      <span v-else class="faint">Its parts are cut: they stay as they were drawn then.</span>
    </p>
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  gap: 6px;
}

.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
}

.line .pick {
  max-width: 170px;
}

.line button {
  min-height: 24px;
}
</style>
