<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { answered, api, type Opened, type SchoolKind, type WingPlace } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { whyNot } from '../shared/useQuantity'
import { useUnits } from '../shared/units'
import PickList from '../shared/PickList.vue'
import { asSaid } from '../shared/choices'

const { id, build, assessment, loadout, send } = useBuild()
const { number, units, inProportion } = useUnits()

const groups = computed(() => assessment.value?.wing_groups.names ?? [])
const chosen = ref('')
const assembly = computed(() => chosen.value || assessment.value?.wing_groups.taken || '')
/** The range that travels with the wing, where the target is fixed to the nose. */
const school = ref<SchoolKind | ''>('')
const fixed = computed(
  () =>
    build.value?.targets.find((each) => each.kind === 'balance')?.balance_unit === 'mm_from_nose',
)
const schools = computed(() =>
  (assessment.value?.beam.schools ?? []).filter(
    (each) => each.low_mm !== null && each.kind !== "plan's mark" && each.kind !== 'nose down',
  ),
)
const place = ref<WingPlace>()
const wrong = ref('')
watch([build, assembly, loadout, school], () => {
  turn++
  place.value = undefined
  wrong.value = ''
})
const query = () => ({
  school: (fixed.value && school.value) || undefined,
  assembly: assembly.value,
  loadout: build.value?.loadouts.length ? loadout.value?.id : undefined,
})

let turn = 0
async function find() {
  const mine = ++turn
  wrong.value = assembly.value ? '' : 'Say which part or assembly the wing is.'
  if (wrong.value) return
  try {
    const found = await answered<WingPlace>(
      api.GET('/api/v1/builds/{build_id}/wing-place', {
        params: { path: { build_id: id.value }, query: query() },
      }),
    )
    if (mine === turn) place.value = found
  } catch (error) {
    if (mine === turn) wrong.value = whyNot(error)
  }
}
function move() {
  void send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/wing-place', {
        params: { path: { build_id: id.value }, header, query: query() },
      }),
    ),
  )
}
</script>

<template>
  <section aria-label="Where the wing belongs" class="small">
    <h2>Where the wing belongs</h2>
    <p>
      <label
        >the wing is
        <PickList
          v-model="chosen"
          :items="[{ value: '', title: assembly || 'which?' }, ...asSaid(groups)]"
          aria-label="What the wing is"
      /></label>
      {{ ' ' }}
      <v-verb @click="find">find its place</v-verb>
    </p>
    <p v-if="fixed">
      <label
        >The target is fixed to the nose, so it should balance by
        <PickList
          v-model="school"
          :items="[
            { value: '', title: 'which range?' },
            ...schools.map((each) => ({ value: each.kind, title: each.kind })),
          ]"
          aria-label="Which range is meant"
      /></label>
    </p>
    <p v-if="place">
      The rest,
      <span class="figure">{{
        number(place.fuselage_g, 'mass', inProportion(place.fuselage_g))
      }}</span>
      {{ units.mass.name }}, balances at
      <span class="figure">{{ number(place.fuselage_x_mm, 'length') }}</span>
      {{ units.length.name }}. The leading edge belongs at
      <strong class="figure">{{ number(place.edge_mm, 'length') }}</strong>,
      {{
        place.is_there
          ? 'where it is.'
          : `${number(Math.abs(place.by_mm), 'length')} ${units.length.name} ${place.by_mm > 0 ? 'aft' : 'forward'} of where it is.`
      }}
      <v-verb v-if="!place.is_there" @click="move"> put it there </v-verb>
    </p>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
</style>
