<script setup lang="ts">
import { useInUnits } from '../say/inUnits'
import { computed, reactive, ref } from 'vue'
import { answered, api, type NewCheck, type Opened } from '../api/client'
import { freshId } from '../shared/freshId'
import { useBuild } from '../shared/useBuild'
import { understand, whyNot } from '../shared/useQuantity'
import { useUnits } from '../shared/units'

const inUnits = useInUnits()

const { id, build, assessment, loadout, loadouts, send } = useBuild()
const { number, units } = useUnits()

const WAYS = [
  { value: 'support', title: 'Fingertips' },
  { value: 'supports', title: 'Two supports' },
  { value: 'sides', title: 'Left and right' },
  { value: 'hang', title: 'Hang angle' },
] as const
type Way = (typeof WAYS)[number]['value']

const way = ref<Way | null>(null)
const fields = reactive({ by: 'fingertips', x: '', other: '', reading: '', z: '', angle: '' })
const reference = ref<'leading_edge' | 'nose'>('leading_edge')
const wrong = ref('')
const edge = computed(() => assessment.value?.wing?.leading_edge_x_mm ?? 0)

function open(chosen: Way) {
  way.value = way.value === chosen ? null : chosen
  wrong.value = ''
  Object.assign(fields, { by: 'fingertips', x: '', other: '', reading: '', z: '', angle: '' })
  reference.value = chosen === 'support' && edge.value ? 'leading_edge' : 'nose'
}

async function length(text: string, what: string): Promise<number> {
  try {
    return await understand(text, 'station', units.value.length.name)
  } catch (error) {
    throw new Error(`${what}: ${whyNot(error)}`)
  }
}
async function from(text: string, what: string): Promise<number> {
  return (await length(text, what)) + (reference.value === 'leading_edge' ? edge.value : 0)
}

async function keep() {
  if (!way.value) return
  wrong.value = ''
  try {
    const across = way.value === 'sides'
    const body: NewCheck = {
      id: freshId(),
      kind: way.value,
      loadout: build.value?.loadouts.length ? (loadout.value?.id ?? null) : null,
      x_mm: across
        ? await length(fields.x, 'Left support')
        : await from(fields.x, way.value === 'hang' ? 'Where it hangs' : 'Where it rests'),
      by: way.value === 'support' ? fields.by : '',
    }
    if (way.value === 'supports' || across) {
      body.other_mm = across
        ? await length(fields.other, 'Right support')
        : await from(fields.other, 'Aft support')
      body.reading_g = await understand(fields.reading, 'mass', units.value.mass.name)
      body.scale = build.value?.scales[0]?.id ?? null
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
}

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
      how: check ? HOW[check.kind] : '',
      with: loadouts.value.find((each) => each.id === told.loadout)?.name ?? 'everything aboard',
      words:
        Math.abs(gap) < 0.5
          ? 'agrees with the sum'
          : `${far} ${units.value.length.name} ${way} of the sum`,
      disagrees: Math.abs(told.t) > 2,
    }
  }),
)
const mine = computed(() =>
  assessment.value?.beam.loadouts.find((each) => each.id === loadout.value?.id),
)
</script>

<template>
  <section aria-label="Checked on the bench">
    <h2>Checked on the bench</h2>
    <p class="small" :class="{ wrong: mine?.checked.startsWith('not checked since') }">
      {{ mine?.checked.replace(/^./, (first) => first.toUpperCase()) }}.
    </p>
    <ul>
      <li
        v-for="check in made"
        :key="check.id"
        :class="{ gone: check.aside !== null }"
        :data-check="check.id"
      >
        <span>
          <strong>{{ check.how }}</strong>
          <span class="figure"> {{ number(check.found_mm, 'length') }}</span>
          <span class="faint figure"> ±{{ number(2 * check.found_sd_mm, 'length') }}</span>
          {{ units.length.name }}: {{ inUnits(check.words) }}
        </span>
        <span class="faint small">{{ check.with }}</span>
        <p v-if="check.warning" class="note small" role="note">{{ check.warning }}</p>
        <p v-if="check.disagrees && check.aside === null" class="note small" role="note">
          It disagrees with the sum.
          <template v-if="check.reasons.length">What would explain it:</template>
          <span v-for="(reason, at) in check.reasons" :key="at" class="reason">
            {{ at ? 'or ' : '' }}{{ inUnits(reason.words) }}
          </span>
        </p>
        <button
          type="button"
          class="plainly under small faint"
          @click="aside(check.id, check.aside === null ? 'wrong' : null)"
        >
          {{ check.aside === null ? 'set aside' : 'count it again' }}
        </button>
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
      <p class="faint">With {{ loadout?.name }}. L for another loadout.</p>
      <label v-if="way === 'support'"
        >level on
        <select v-model="fields.by" class="entry">
          <option value="fingertips">fingertips, ±3 mm</option>
          <option value="pegs">two pegs, ±1 mm</option>
          <option value="string">a string, ±2 mm</option>
        </select></label
      >
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
        <input
          v-model="fields.x"
          class="entry figure few"
          aria-label="Where it rests"
          inputmode="decimal"
        />
        {{ units.length.name }}
        <select v-if="way !== 'sides'" v-model="reference" class="entry" aria-label="Measured from">
          <option value="leading_edge">of leading edge</option>
          <option value="nose">of nose</option>
        </select></label
      >
      <template v-if="way === 'supports' || way === 'sides'">
        <label
          >{{ way === 'sides' ? 'right support at' : 'aft support' }}
          <input v-model="fields.other" class="entry figure few" inputmode="decimal" />
          {{ units.length.name }}</label
        >
        <label
          >the scale reads
          <input v-model="fields.reading" class="entry figure few" inputmode="decimal" />
          {{ units.mass.name }}</label
        >
      </template>
      <template v-if="way === 'hang'">
        <label
          >that high
          <input v-model="fields.z" class="entry figure few" inputmode="decimal" />
          {{ units.length.name }}</label
        >
        <label
          >nose down
          <input v-model="fields.angle" class="entry figure few" inputmode="decimal" />
          degrees</label
        >
      </template>
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

.few {
  width: 74px;
}
</style>
