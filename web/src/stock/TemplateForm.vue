<script setup lang="ts">
import { reactive, ref } from 'vue'
import { answered, api, type Candidate } from '../api/client'
import { once } from '../shared/once'
import { sent } from '../shared/sent'
import { useUnits } from '../shared/units'
import OnScale from '../shared/OnScale.vue'
import { understand, whyNot } from '../shared/useQuantity'
import { useScaleAtHand } from '../shared/useScaleAtHand'

const emit = defineEmits<{ add: [part: Candidate, doubt: number] }>()
const { scale } = useScaleAtHand()
const { quantity, units } = useUnits()

const typed = reactive({ name: '', reading: '' })
const paper = ref('80')
const wrong = ref('')
const told = ref('')

const add = once(async () => {
  wrong.value = told.value = ''
  const anew = sent(typed)
  try {
    const area = await answered<{ area_dm2: number; doubt_dm2: number }>(
      api.POST('/api/v1/template', {
        body: {
          reading_g: await understand(typed.reading, 'mass', units.value.mass.name),
          step_g: scale.value?.step_g ?? 0.1,
          paper_g_m2: await understand(paper.value, 'number'),
        },
      }),
    )
    const side = Math.sqrt(area.area_dm2) * 100
    emit(
      'add',
      {
        name: typed.name.trim() || 'From a template',
        layer: '',
        area_dm2: area.area_dm2,
        x_mm: side / 2,
        y_mm: side / 2,
        box: { left_mm: 0, top_mm: 0, right_mm: side, bottom_mm: side },
        holes: 0,
        rings: [],
        flaw: null,
      },
      area.doubt_dm2,
    )
    told.value = `${quantity(area.area_dm2, 'area')} ±${quantity(2 * area.doubt_dm2, 'area')}`
    anew({ name: '', reading: '' })
  } catch (error) {
    wrong.value = whyNot(error)
  }
})
</script>

<template>
  <form class="template" aria-label="Weigh a paper template" @submit.prevent="add">
    <h3>Or weigh its paper template</h3>
    <div class="line">
      <v-text-field
        v-model="typed.name"
        class="entry"
        aria-label="Name of the template"
        placeholder="part"
      />
      <label class="small"
        >weighs
        <v-text-field
          v-model="typed.reading"
          class="entry figure few"
          inputmode="decimal"
          aria-label="The template weighs"
        />
        {{ units.mass.name }}</label
      >
      <OnScale />
      <label class="small"
        >on paper of
        <v-text-field
          v-model="paper"
          class="entry figure few"
          inputmode="decimal"
          aria-label="Paper"
        />
        g/m²</label
      >
      <v-verb type="submit" class="small">offer it <kbd>Enter</kbd></v-verb>
      <output v-if="told" class="figure small">{{ told }}</output>
    </div>
    <p class="faint small">
      Its centroid is not known from its weight: balance the paper on a pin, and type where that
      sits.
    </p>
    <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
  </form>
</template>

<style scoped>
.template {
  display: grid;
  gap: 6px;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}

.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}

.few {
  width: 66px;
}
</style>
