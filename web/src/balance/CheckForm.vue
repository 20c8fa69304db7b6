<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { answered, api, type NewCheck, type Opened } from '../api/client'
import { titled } from '../shared/choices'
import { freshId } from '../shared/freshId'
import OnScale from '../shared/OnScale.vue'
import { once } from '../shared/once'
import PickList from '../shared/PickList.vue'
import { useBuild } from '../shared/useBuild'
import { understand, whyNot } from '../shared/useQuantity'
import { useScaleAtHand } from '../shared/useScaleAtHand'
import { useUnits } from '../shared/units'
import type { Way } from './ways'

/** One check by hand, in the way that was chosen. */
const props = defineProps<{ way: Way }>()
const emit = defineEmits<{ kept: [] }>()

const { id, build, assessment, loadout, send } = useBuild()
const { quantity, units } = useUnits()
const { scale } = useScaleAtHand()

const HOLDS: Record<string, string> = {
  fingertips: 'fingertips',
  pegs: 'two pegs',
  string: 'a string',
}
const DATUMS = titled({ leading_edge: 'of leading edge', nose: 'of nose' })
/** What a hand feels of a plane on two fingertips. */
const FEELS = [
  { value: 'level by feel', title: 'it feels level' },
  { value: 'tail drops', title: 'the tail drops' },
  { value: 'nose drops', title: 'the nose drops' },
  { value: 'nose a hand low', title: 'the nose hangs a hand lower' },
  { value: 'tail a hand low', title: 'the tail hangs a hand lower' },
]

const holds = computed(() =>
  (assessment.value?.beam.held_by ?? []).map(({ by, sd_mm }) => ({
    value: by,
    title: `${HOLDS[by] ?? by}, ±${quantity(sd_mm, 'length')}`,
  })),
)

/** The assemblies that were held; none of them: the whole plane. */
const held = ref<string[]>([])
const groups = computed(() =>
  (assessment.value?.assemblies ?? []).map((each) => each.name).filter(Boolean),
)
const isRested = props.way === 'support' || props.way === 'feel'
const fields = reactive({
  by: props.way === 'feel' ? 'tail drops' : 'fingertips',
  x: '',
  other: '',
  reading: '',
  z: '',
  angle: '',
})
const reference = ref<'leading_edge' | 'nose'>(
  isRested && assessment.value?.wing ? 'leading_edge' : 'nose',
)
const wrong = ref('')

async function length(text: string, what: string): Promise<number> {
  try {
    return await understand(text, 'station', units.value.length.name)
  } catch (error) {
    throw new Error(`${what}: ${whyNot(error)}`)
  }
}
/** The form goes as the check appears: what is pressed next is not put away with it. */
const asked = ref('')
watch(
  () => build.value?.checks.some((each) => each.id === asked.value) ?? false,
  (isThere) => isThere && emit('kept'),
)
const keep = once(async () => {
  wrong.value = ''
  try {
    const across = props.way === 'sides'
    const body: NewCheck = {
      id: freshId(),
      kind: props.way === 'feel' ? 'support' : props.way,
      loadout: build.value?.loadouts.length ? (loadout.value?.id ?? null) : null,
      x_mm: across
        ? await length(fields.x, 'Left support')
        : await length(fields.x, props.way === 'hang' ? 'Where it hangs' : 'Where it rests'),
      reference: reference.value,
      by: isRested ? fields.by : '',
      ...partly(),
    }
    if (props.way === 'supports' || across) {
      body.other_mm = across
        ? await length(fields.other, 'Right support')
        : await length(fields.other, 'Aft support')
      body.reading_g = await understand(fields.reading, 'mass', units.value.mass.name)
      body.scale = scale.value?.id ?? null
    }
    if (props.way === 'hang') {
      body.z_mm = await length(fields.z, 'How high')
      body.nose_down_deg = await understand(fields.angle, 'number')
    }
    asked.value = body.id ?? ''
    await send(() =>
      answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/checks', {
          params: { path: { build_id: id.value } },
          body,
        }),
      ),
    )
  } catch (error) {
    wrong.value = error instanceof Error ? error.message : whyNot(error)
  }
})

/** What was held, where it was not the whole plane. */
const partly = (): Pick<NewCheck, 'held_alone' | 'assemblies'> =>
  held.value.length ? { held_alone: held.value.join(' and '), assemblies: held.value } : {}
</script>

<template>
  <form class="small" @submit.prevent="keep">
    <p class="faint">Loaded as: {{ loadout?.name }}. L for another loadout.</p>
    <label v-if="way === 'support'">level on <PickList v-model="fields.by" :items="holds" /></label>
    <label v-if="way === 'feel'"
      >on fingertips, <PickList v-model="fields.by" :items="FEELS" aria-label="What it does"
    /></label>
    <p v-if="way === 'supports'" class="faint">
      Level on two supports, the aft one on the scale. One scale will do: weigh one end, block the
      other level.
    </p>
    <p v-if="way === 'sides'" class="faint">
      Level across on two supports, the right one on the scale; distances from the middle.
    </p>
    <label
      >{{
        way === 'sides'
          ? 'left support at'
          : way === 'supports'
            ? 'front support'
            : way === 'hang'
              ? 'hangs from'
              : 'at'
      }}
      <v-text-field
        v-model="fields.x"
        class="entry figure few"
        aria-label="Where it rests"
        inputmode="decimal" />
      {{ units.length.name }}
      <PickList
        v-if="way !== 'sides'"
        v-model="reference"
        :items="DATUMS"
        aria-label="Measured from"
    /></label>
    <template v-if="way === 'supports' || way === 'sides'">
      <label
        >{{ way === 'sides' ? 'right support at' : 'aft support' }}
        <v-text-field v-model="fields.other" class="entry figure few" inputmode="decimal" />
        {{ units.length.name }}</label
      >
      <label
        >the scale reads
        <v-text-field v-model="fields.reading" class="entry figure few" inputmode="decimal" />
        {{ units.mass.name }}</label
      >
      <OnScale />
    </template>
    <template v-if="way === 'hang'">
      <label
        >that high
        <v-text-field v-model="fields.z" class="entry figure few" inputmode="decimal" />
        {{ units.length.name }}</label
      >
      <label
        >nose down
        <v-text-field v-model="fields.angle" class="entry figure few" inputmode="decimal" />
        degrees</label
      >
    </template>
    <details v-if="groups.length > 1">
      <summary>only a part of the plane was held</summary>
      <v-checkbox-btn
        v-for="each in groups"
        :key="each"
        v-model="held"
        :value="each"
        :label="each"
      />
      <p v-if="held.length" class="faint">
        It tells of these with what is in them, and is no check of the whole plane.
      </p>
    </details>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <v-btn class="press--main" type="submit">Record it</v-btn>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
}

form > label {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}

form > label :deep(.v-input) {
  flex: none;
}

.few {
  width: 74px;
}
</style>
