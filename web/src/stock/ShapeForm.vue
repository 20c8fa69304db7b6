<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { Candidate, NewShape } from '../api/client'
import { once } from '../shared/once'
import { useUnits } from '../shared/units'
import { understand, whyNot } from '../shared/useQuantity'
import PickList from '../shared/PickList.vue'
import { titled } from '../shared/choices'

const props = defineProps<{ measure: (shape: NewShape) => Promise<Candidate | undefined> }>()
const emit = defineEmits<{ add: [part: Candidate] }>()
const { units, quantity, example } = useUnits()

type Kind = NewShape['shape']['kind']
const SHAPES: Record<Kind, { title: string; sides: [string, string][] }> = {
  rectangle: { title: 'rectangle', sides: [['width_mm', 'wide'], ['height_mm', 'high']] },
  trapezoid: {
    title: 'trapezoid',
    sides: [
      ['top_mm', 'upper side'],
      ['bottom_mm', 'lower side'],
      ['height_mm', 'apart'],
      ['offset_mm', 'lower starts right by'],
    ],
  },
  triangle: {
    title: 'triangle',
    sides: [['base_mm', 'base'], ['height_mm', 'high'], ['offset_mm', 'point right by']],
  },
  ellipse: { title: 'ellipse or circle', sides: [['width_mm', 'wide'], ['height_mm', 'high']] },
  polygon: { title: 'any corners', sides: [] },
} // prettier-ignore
/** A tapered fin's, for what the field is like [mm]. */
const CORNERS = [[0, 0], [190, 0], [150, 60], [0, 60]] // prettier-ignore
const SHAPED = titled(SHAPES)
const CUT_OUTS = SHAPED.filter(({ value }) => value !== 'polygon')

interface Form {
  kind: Kind
  sides: Record<string, string>
  corners: string
  x: string
  y: string
}
const blank = (): Form => ({ kind: 'rectangle', sides: {}, corners: '', x: '', y: '' })

const name = ref('')
const whole = reactive(blank())
const holes = ref<Form[]>([])
const wrong = ref('')
const told = ref<Candidate>()
const sides = computed(() => SHAPES[whole.kind].sides)

async function mm(text: string | undefined, field: string): Promise<number> {
  try {
    return await understand(text?.trim() ? text : '0', 'station', units.value.length.name)
  } catch (error) {
    throw new Error(`${field}: ${whyNot(error)}`)
  }
}

async function read(form: Form): Promise<NewShape['shape']> {
  if (form.kind === 'polygon') {
    const numbers = form.corners.split(/[;\n]/).filter((each) => each.trim())
    const points = await Promise.all(
      numbers.map(async (each) => {
        const [x, y] = each.trim().split(/[\s]+/)
        return [await mm(x, 'Corners'), await mm(y, 'Corners')]
      }),
    )
    return { kind: 'polygon', points }
  }
  const figures: Record<string, number> = {}
  for (const [key, title] of SHAPES[form.kind].sides)
    figures[key] = await mm(form.sides[key], title)
  return { kind: form.kind, ...figures } as NewShape['shape']
}

async function measured(): Promise<Candidate | undefined> {
  wrong.value = ''
  try {
    const cut_outs = await Promise.all(
      holes.value.map(async (hole) => ({
        shape: await read(hole),
        x_mm: await mm(hole.x, 'Cut-out'),
        y_mm: await mm(hole.y, 'Cut-out'),
      })),
    )
    told.value = await props.measure({
      name: name.value.trim() || 'Part',
      shape: await read(whole),
      cut_outs,
    })
    return told.value
  } catch (error) {
    wrong.value = whyNot(error)
    return undefined
  }
}

const add = once(async () => {
  const part = await measured()
  if (!part) return
  emit('add', part)
  name.value = ''
  Object.assign(whole, { ...blank(), kind: whole.kind })
  holes.value = []
  told.value = undefined
})
</script>

<template>
  <form class="shape" aria-label="Measure a shape" @submit.prevent="add">
    <h3>No drawing: measure a shape</h3>
    <div class="line">
      <v-text-field
        v-model="name"
        class="entry"
        aria-label="Name of the shape"
        placeholder="part"
      />
      <PickList v-model="whole.kind" :items="SHAPED" aria-label="Shape" />
      <label v-for="[key, title] in sides" :key="key" class="small"
        >{{ title }}
        <v-text-field
          v-model="whole.sides[key]"
          class="entry figure few"
          inputmode="decimal"
          :aria-label="title"
      /></label>
      <v-textarea
        v-if="whole.kind === 'polygon'"
        v-model="whole.corners"
        class="figure corners"
        aria-label="Corners"
        rows="3"
        :placeholder="
          CORNERS.map((at) => at.map((mm) => example(mm, 'length')).join(' ')).join('; ')
        "
      />
    </div>
    <div v-for="(hole, at) in holes" :key="at" class="line">
      <span class="faint small">less a</span>
      <PickList v-model="hole.kind" :items="CUT_OUTS" aria-label="Shape of the cut-out" />
      <label v-for="[key, title] in SHAPES[hole.kind].sides" :key="key" class="small"
        >{{ title }}
        <v-text-field
          v-model="hole.sides[key]"
          class="entry figure few"
          inputmode="decimal"
          :aria-label="`Cut-out, ${title}`"
      /></label>
      <label class="small"
        >at
        <v-text-field v-model="hole.x" class="entry figure few" aria-label="Cut-out, from the left"
      /></label>
      <v-text-field v-model="hole.y" class="entry figure few" aria-label="Cut-out, from the top" />
      <v-verb class="small" @click="holes.splice(at, 1)">remove</v-verb>
    </div>
    <div class="line">
      <v-verb class="small" @click="holes.push(blank())"> cut something out of it </v-verb>
      <v-verb class="small" @click="measured">measure</v-verb>
      <v-verb type="submit" class="small">offer it <kbd>Enter</kbd></v-verb>
      <output v-if="told" class="figure small">{{ quantity(told.area_dm2, 'area') }}</output>
    </div>
    <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
  </form>
</template>

<style scoped>
.shape {
  display: grid;
  gap: 8px;
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

.corners {
  width: 100%;
}
</style>
