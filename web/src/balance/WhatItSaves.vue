<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { answered, api, type Part, type Saved } from '../api/client'
import { fromWhere } from '../say/parts'
import { useRemedyWords } from '../say/remedies'
import { named } from '../shared/choices'
import PickList from '../shared/PickList.vue'
import { useBuild } from '../shared/useBuild'
import { understand, whyNot } from '../shared/useQuantity'
import { useUnits } from '../shared/units'

/** What a longer bay would save, before it is cut. */
const props = defineProps<{ parts: Part[] }>()
const { id, build } = useBuild()
const { units } = useUnits()
const { outcome, saves } = useRemedyWords()

const wider = reactive({ part: '', low: '', high: '' })
const chosen = computed(() => props.parts.find((part) => part.id === wider.part))
const saved = ref<Saved>()
const refused = ref('')
watch(build, () => (saved.value = undefined))
async function ask() {
  refused.value = ''
  saved.value = undefined
  try {
    const read = (text: string) => understand(text, 'station', units.value.length.name)
    const slide = { low_mm: await read(wider.low), high_mm: await read(wider.high) }
    saved.value = await answered<Saved>(
      api.POST('/api/v1/builds/{build_id}/remedies/what-if', {
        params: { path: { build_id: id.value } },
        body: { part: wider.part, slide },
      }),
    )
  } catch (error) {
    refused.value = whyNot(error)
  }
}
</script>

<template>
  <form class="save" @submit.prevent="ask">
    <label
      >What would it save if the
      <PickList
        v-model="wider.part"
        :items="named(parts)"
        placeholder="thing"
        aria-label="What if this might slide further"
    /></label>
    <span
      >might slide from
      <v-text-field v-model="wider.low" class="entry figure few" aria-label="Further forward" />
      to <v-text-field v-model="wider.high" class="entry figure few" aria-label="Further aft" />
      {{ units.length.name }}, {{ fromWhere(chosen) }}?
      <v-verb type="submit">work it out</v-verb>
    </span>
    <p v-if="saved" role="status">
      <strong v-if="saved.saves_g !== null">{{ saves(saved.saves_g) }}</strong>
      {{ outcome(saved.then) }}
    </p>
    <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
  </form>
</template>

<style scoped>
.save {
  display: grid;
  gap: 4px;
}

.few {
  width: 62px;
}
</style>
