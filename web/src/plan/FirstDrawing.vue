<script setup lang="ts">
import { useBeginnings } from '../shared/useBeginnings'
import { computed, onMounted, ref } from 'vue'
import { answered, api, type Opened } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

/** A first drawing: the span and the chord, or the area, or what a sheet gives; the rest follows. */
const { id, build, assessment, change, send } = useBuild()
const { units, number } = useUnits()

const beginnings = useBeginnings()
const layouts = computed(() => beginnings.value?.layouts ?? [])

const span = ref<number | null>(null)
const chord = ref<number | null>(null)
const area = ref<number | null>(null)
const ready = computed(() => span.value !== null && (chord.value !== null || area.value !== null))

const sheets = computed(() =>
  (assessment.value?.proportions.sheets ?? []).map((sheet) => ({
    ...sheet,
    name: build.value?.lots.find((lot) => lot.id === sheet.lot)?.name ?? sheet.lot,
  })),
)
function fromSheet(lot: string) {
  const sheet = sheets.value.find((each) => each.lot === lot)
  if (!sheet) return
  span.value = sheet.two_halves_mm
  chord.value = Math.floor(sheet.folded_chord_mm)
  area.value = null
  draw()
}

/** A figure that is kept: with the span and one more, the plane is drawn. */
function kept(of: 'span' | 'chord' | 'area', value: number | null) {
  ;({ span, chord, area })[of].value = value
  draw()
}

const root = ref<HTMLElement>()
onMounted(() => root.value?.querySelector<HTMLElement>('.figures input')?.focus())

function draw() {
  if (!ready.value) return
  void send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/drawing', {
        params: { path: { build_id: id.value }, header },
        body: {
          span_mm: span.value ?? 0,
          chord_mm: chord.value,
          area_dm2: chord.value === null ? area.value : null,
        },
      }),
    ),
  )
}
</script>

<template>
  <section ref="root" class="first slip" aria-label="A first drawing">
    <h2>A first drawing</h2>
    <p class="faint small">
      Its span, and its chord at the root or the wing's area; tail and fin follow in proportion.
    </p>
    <label
      >laid out as
      <PickList
        :model-value="build?.layout"
        :items="named(layouts, 'not said')"
        aria-label="How it is laid out"
        @update:model-value="change(() => ({ layout: $event }))"
    /></label>
    <div class="figures">
      <label
        >span
        <QuantityCell
          :value="span"
          kind="length"
          label="Span of the first drawing"
          measure="span"
          optional
          :unit="units.length.name"
          :base="units.length.base"
          @kept="kept('span', $event)"
      /></label>
      <label
        >chord
        <QuantityCell
          :value="chord"
          kind="length"
          label="Chord of the first drawing"
          measure="chord"
          optional
          :unit="units.length.name"
          :base="units.length.base"
          @kept="kept('chord', $event)"
      /></label>
      <label
        >or area
        <QuantityCell
          :value="area"
          kind="area"
          label="Wing area of the first drawing"
          optional
          :unit="units.area.name"
          :base="units.area.base"
          @kept="kept('area', $event)"
        />
        {{ units.area.name }}</label
      >
    </div>
    <label v-if="sheets.length" class="small"
      >or what a sheet gives
      <PickList
        :model-value="''"
        :items="[
          { value: '', title: 'choose a sheet' },
          ...sheets.map((each) => ({
            value: each.lot,
            title: `${each.name}: ${number(each.two_halves_mm, 'length')} across, ${number(each.folded_chord_mm, 'length')} folded`,
          })),
        ]"
        aria-label="What a sheet gives"
        @update:model-value="fromSheet($event)"
    /></label>
    <v-btn :disabled="!ready" @click="draw">Draw it</v-btn>
  </section>
</template>

<style scoped>
.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
}

.figures :deep(.cell) {
  width: 74px;
}

label .pick {
  max-width: 260px;
}
</style>
