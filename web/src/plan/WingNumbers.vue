<script setup lang="ts">
import { computed } from 'vue'
import { useProportionWords } from '../say/proportions'
import { useBuild } from '../shared/useBuild'
import type { Assessment } from '../api/client'
import { fixed, useUnits } from '../shared/units'
import TheseWords from '../shared/TheseWords.vue'

const props = defineProps<{ assessment: Assessment | undefined }>()
const { build } = useBuild()
const { quantity, number, units } = useUnits()
const odd = useProportionWords()
/** Ounces a cubic foot in a gram a cubic decimetre. */
const PER_FT3 = 3.048 ** 3 / 28.349523125
const lotName = (id: string) => build.value?.lots.find((each) => each.id === id)?.name ?? id

const untouched = computed(
  () => props.assessment?.outlines.filter((each) => each.untouched && !each.is_port) ?? [],
)
/** What nobody has drawn yet claims nothing. */
const claimed = computed(() => !untouched.value.some((each) => each.role === 'wing'))

const figures = computed(() => {
  if (!claimed.value) return []
  const told = props.assessment?.proportions
  const inFeet = units.value.loading.name === 'oz/ft²'
  const all: [string, number | null | undefined, number, string][] = [
    ['Tail volume', told?.tail_volume, 2, ''],
    ['Fin volume', told?.fin_volume, 3, ''],
    ['Thickness over chord', told?.thickness, 2, ''],
    inFeet
      ? ['Cubic loading', (told?.cubic_loading ?? NaN) * PER_FT3, 2, ' oz/ft³']
      : ['Cubic loading', told?.cubic_loading, 2, ' g/dm³'],
  ]
  const shown = all.flatMap(([name, value, digits, unit]) =>
    value === null || value === undefined || Number.isNaN(value)
      ? []
      : [{ name, value: fixed(value, digits) + unit }],
  )
  if (told?.stall_speed)
    shown.push({
      name: 'Stall speed, heaviest loadout',
      value: quantity(told.stall_speed, 'speed'),
    })
  return shown
})
</script>

<template>
  <aside aria-label="What the drawing comes to">
    <h3>What the drawing comes to</h3>
    <dl v-if="assessment?.wing">
      <dt>Wing area, all main wings</dt>
      <dd class="figure">{{ quantity(assessment.wing.area_dm2, 'area') }}</dd>
      <dt>Span</dt>
      <dd class="figure">{{ quantity(assessment.wing.span_mm, 'length') }}</dd>
      <template v-if="assessment.proportions.length_mm">
        <dt>Overall length</dt>
        <dd class="figure">{{ quantity(assessment.proportions.length_mm, 'length') }}</dd>
      </template>
      <dt>Mean aerodynamic chord</dt>
      <dd class="figure">{{ quantity(assessment.wing.mac_mm, 'length') }}</dd>
      <dt>It begins, from the nose</dt>
      <dd class="figure">{{ quantity(assessment.wing.mac_le_x_mm, 'length') }}</dd>
      <dt>Aspect ratio</dt>
      <dd class="figure">{{ fixed(assessment.wing.aspect_ratio, 1) }}</dd>
      <template v-if="assessment.wing.aspect_ratio_alone !== assessment.wing.aspect_ratio">
        <dt>Aspect ratio, largest wing alone</dt>
        <dd class="figure">{{ fixed(assessment.wing.aspect_ratio_alone, 1) }}</dd>
      </template>
      <template v-if="assessment.beam.neutral && claimed">
        <dt>Neutral point, from the nose</dt>
        <dd class="figure">
          {{ quantity(assessment.beam.neutral.x_mm, 'length') }}
          <span class="faint">±{{ number(assessment.beam.band_mm ?? 0, 'length') }}</span>
        </dd>
      </template>
      <template v-for="each in figures" :key="each.name">
        <dt>{{ each.name }}</dt>
        <dd class="figure">{{ each.value }}</dd>
      </template>
    </dl>
    <p v-if="!assessment?.wing" class="faint">
      No main wing is drawn yet. Wing loading and % MAC wait for it.
    </p>
    <TheseWords
      v-else
      :of="['mean aerodynamic chord', 'neutral point', 'tail volume', 'cubic loading']"
    />
    <p
      v-for="each in claimed ? (assessment?.proportions.odd ?? []) : []"
      :key="each.kind + each.surfaces.join()"
      class="margin-note small"
    >
      {{ odd(each) }}
    </p>
    <details v-if="assessment?.proportions.sheets.length" class="small">
      <summary>What a sheet gives</summary>
      <p v-for="sheet in assessment.proportions.sheets" :key="sheet.lot">
        {{ lotName(sheet.lot) }}: spans to {{ number(sheet.span_mm, 'length') }}, of two halves to
        {{ number(sheet.two_halves_mm, 'length') }}; chords to
        {{ number(sheet.single_chord_mm, 'length') }} single,
        {{ number(sheet.folded_chord_mm, 'length') }} folded over.
      </p>
    </details>
    <p v-for="each in untouched" :key="each.id" class="untouched small">
      {{ each.name }}: still as it came with the layout, not yet yours.
    </p>
    <p class="faint small">Only surfaces called wing count; both halves, ailerons included.</p>
  </aside>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  margin: 8px 0;
  font-size: 14px;
}

.margin-note {
  border-left: 3px solid var(--brass);
  padding-left: 8px;
  margin: 6px 0;
}

.untouched {
  border-left: 3px solid var(--line);
  color: var(--faint);
  padding-left: 8px;
  margin: 6px 0;
}

dd {
  text-align: right;
}
</style>
