<script setup lang="ts">
import { FLAWS, useBalanceWords } from '../say/balance'
import { computed, reactive, ref } from 'vue'
import { answered, api, type NewCheck, type Opened } from '../api/client'
import { once } from '../shared/once'
import { freshId } from '../shared/freshId'
import { useBuild } from '../shared/useBuild'
import { understand, whyNot } from '../shared/useQuantity'
import { useUnits } from '../shared/units'
import { useScaleAtHand } from '../shared/useScaleAtHand'
import OnScale from '../shared/OnScale.vue'
import PickList from '../shared/PickList.vue'
import { titled } from '../shared/choices'

const HOLDS: Record<string, string> = {
  fingertips: 'fingertips',
  pegs: 'two pegs',
  string: 'a string',
}
const DATUMS = titled({ leading_edge: 'of leading edge', nose: 'of nose' })

const { reason: explains, checked } = useBalanceWords()

const { id, build, assessment, loadout, loadouts, balanced, send } = useBuild()
const { number, quantity, units } = useUnits()
const { scale } = useScaleAtHand()
const holds = computed(() =>
  (assessment.value?.beam.held_by ?? []).map(({ by, sd_mm }) => ({
    value: by,
    title: `${HOLDS[by] ?? by}, ±${quantity(sd_mm, 'length')}`,
  })),
)

const WAYS = [
  { value: 'support', title: 'Fingertips' },
  { value: 'feel', title: 'By feel' },
  { value: 'supports', title: 'Two supports' },
  { value: 'sides', title: 'Left and right' },
  { value: 'hang', title: 'Hang angle' },
] as const
type Way = (typeof WAYS)[number]['value']

/** What a hand feels of a plane on two fingertips. */
const FEELS = [
  { value: 'level by feel', title: 'it feels level' },
  { value: 'tail drops', title: 'the tail drops' },
  { value: 'nose drops', title: 'the nose drops' },
  { value: 'nose a hand low', title: 'the nose hangs a hand lower' },
  { value: 'tail a hand low', title: 'the tail hangs a hand lower' },
]

const way = ref<Way | null>(null)
/** The assemblies that were held; none of them: the whole plane. */
const held = ref<string[]>([])
const groups = computed(() =>
  (assessment.value?.assemblies ?? []).map((each) => each.name).filter(Boolean),
)
const fields = reactive({ by: 'fingertips', x: '', other: '', reading: '', z: '', angle: '' })
const reference = ref<'leading_edge' | 'nose'>('leading_edge')
const wrong = ref('')

function open(chosen: Way) {
  way.value = way.value === chosen ? null : chosen
  wrong.value = ''
  held.value = []
  const by = chosen === 'feel' ? 'tail drops' : 'fingertips'
  Object.assign(fields, { by, x: '', other: '', reading: '', z: '', angle: '' })
  reference.value =
    (chosen === 'support' || chosen === 'feel') && assessment.value?.wing ? 'leading_edge' : 'nose'
}

async function length(text: string, what: string): Promise<number> {
  try {
    return await understand(text, 'station', units.value.length.name)
  } catch (error) {
    throw new Error(`${what}: ${whyNot(error)}`)
  }
}
const keep = once(async () => {
  if (!way.value) return
  wrong.value = ''
  try {
    const across = way.value === 'sides'
    const body: NewCheck = {
      id: freshId(),
      kind: way.value === 'feel' ? 'support' : way.value,
      loadout: build.value?.loadouts.length ? (loadout.value?.id ?? null) : null,
      x_mm: across
        ? await length(fields.x, 'Left support')
        : await length(fields.x, way.value === 'hang' ? 'Where it hangs' : 'Where it rests'),
      reference: reference.value,
      by: way.value === 'support' || way.value === 'feel' ? fields.by : '',
      ...partly(),
    }
    if (way.value === 'supports' || across) {
      body.other_mm = across
        ? await length(fields.other, 'Right support')
        : await length(fields.other, 'Aft support')
      body.reading_g = await understand(fields.reading, 'mass', units.value.mass.name)
      body.scale = scale.value?.id ?? null
    }
    if (way.value === 'hang') {
      body.z_mm = await length(fields.z, 'How high')
      body.nose_down_deg = await understand(fields.angle, 'number')
    }
    const kept = await send(() =>
      answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/checks', {
          params: { path: { build_id: id.value } },
          body,
        }),
      ),
    )
    if (kept) way.value = null
  } catch (error) {
    wrong.value = error instanceof Error ? error.message : whyNot(error)
  }
})

/** What was held, where it was not the whole plane. */
const partly = (): Pick<NewCheck, 'held_alone' | 'assemblies'> =>
  held.value.length ? { held_alone: held.value.join(' and '), assemblies: held.value } : {}

function aside(check: string, reason: string | null) {
  void send(() =>
    answered<Opened>(
      api.PUT('/api/v1/builds/{build_id}/checks/{check_id}/set-aside', {
        params: { path: { build_id: id.value, check_id: check } },
        body: { reason },
      }),
    ),
  )
}

const HOW = { support: 'rests', supports: 'two supports', sides: 'left and right', hang: 'hangs' }
const made = computed(() =>
  [...(assessment.value?.beam.checks ?? [])].reverse().map((told) => {
    const check = build.value?.checks.find((each) => each.id === told.id)
    const gap = told.found_mm - told.sum_mm
    const far = number(Math.abs(gap), 'length')
    const way = told.across ? (gap > 0 ? 'to the right' : 'to the left') : gap > 0 ? 'aft' : 'ahead'
    return {
      ...told,
      aside: check?.set_aside ?? null,
      how: check ? (told.feel ? `${told.feel} at` : HOW[check.kind]) : '',
      at: told.feel ? (check?.x_mm ?? told.found_mm) : told.found_mm,
      give: told.feel ? null : told.found_sd_mm,
      with:
        told.held_alone ||
        (loadouts.value.find((each) => each.id === told.loadout)?.name ?? 'everything aboard'),
      words: told.feel
        ? told.agrees
          ? 'the sum agrees'
          : 'the sum says otherwise'
        : told.agrees
          ? 'agrees with the sum'
          : `${far} ${units.value.length.name} ${way} of the sum`,
    }
  }),
)
const whether = computed(() => (balanced.value ? checked(balanced.value.checked) : ''))
</script>

<template>
  <section aria-label="Checked on the bench">
    <h2>Checked on the bench</h2>
    <p class="small" :class="{ wrong: balanced?.checked.how === 'not_since' }">
      {{ whether.replace(/^./, (first) => first.toUpperCase()) }}.
    </p>
    <ul>
      <li
        v-for="check in made"
        :key="check.id"
        :class="{ gone: check.aside !== null }"
        :data-check="check.id"
      >
        <span>
          <strong>{{ check.how }}</strong>{{ ' ' }}
          <span class="figure">{{ number(check.at, 'length') }}</span>
          <span v-if="check.give !== null" class="faint figure">
            ±{{ number(2 * check.give, 'length') }}</span
          >
          {{ units.length.name }}: {{ check.words }}
        </span>
        <span class="faint small">{{ check.with }}</span>
        <p v-if="check.flaw" class="note small" role="note">{{ FLAWS[check.flaw] }}</p>
        <p v-if="check.disagrees && check.aside === null" class="note small" role="note">
          It disagrees with the sum.
          <template v-if="check.reasons.length">What would explain it:</template>
          <span v-for="(reason, at) in check.reasons" :key="at" class="reason">
            {{ at ? 'or ' : '' }}{{ explains(reason) }}
          </span>
        </p>
        <v-verb class="small faint" @click="aside(check.id, check.aside === null ? 'wrong' : null)">
          {{ check.aside === null ? 'set aside' : 'count it again' }}
        </v-verb>
      </li>
    </ul>
    <p v-if="!made.length" class="faint small">
      Hold it at both wing marks, with the pack in, canopy on, everything taped where it flies.
    </p>
    <div class="ways">
      <v-btn
        v-for="each in WAYS"
        :key="each.value"
        :aria-pressed="way === each.value"
        @click="open(each.value)"
        >{{ each.title }}</v-btn
      >
    </div>
    <form v-if="way" class="small" @submit.prevent="keep">
      <p class="faint">Loaded as: {{ loadout?.name }}. L for another loadout.</p>
      <label v-if="way === 'support'"
        >level on <PickList v-model="fields.by" :items="holds"
      /></label>
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
  </section>
</template>

<style scoped>
section,
form {
  display: grid;
  gap: 8px;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: grid;
  gap: 2px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  font-size: 14px;
  justify-items: start;
}

.gone > span {
  text-decoration: line-through;
}

.note {
  border-left: 4px solid var(--rust);
  background: var(--rust-wash);
  padding: 5px 8px;
}

.reason {
  display: block;
}

.ways {
  display: flex;
  flex-wrap: wrap;
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
