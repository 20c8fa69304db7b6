<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import type { RunPoint } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { understand, whyNot } from '../shared/useQuantity'
import { useUnits } from '../shared/units'
import { useDrive } from './useDrive'

const { drive, told, mine, addRun, setAside } = useDrive()
const { id } = useBuild()
const { number, units } = useUnits()

// Points that were typed and not kept as a run yet wait in this browser, with what they were taken.
const kept = computed(() => `oaken-scale-run-${id.value}`)
const points = ref<RunPoint[]>([])
const pack = ref('')
const propeller = ref('')
watch(
  kept,
  (key) => {
    const waits = JSON.parse(localStorage.getItem(key) ?? '{}')
    points.value = waits.points ?? []
    pack.value = waits.pack ?? ''
    propeller.value = waits.propeller ?? ''
  },
  { immediate: true },
)
watch(
  [points, pack, propeller],
  () => {
    const waits = { points: points.value, pack: pack.value, propeller: propeller.value }
    if (points.value.length) localStorage.setItem(kept.value, JSON.stringify(waits))
    else localStorage.removeItem(kept.value)
  },
  { deep: true },
)

watch(
  [mine, drive],
  () => {
    const all = drive.value
    if (!all?.packs.some((each) => each.id === pack.value))
      pack.value = mine.value?.pack ?? all?.packs[0]?.id ?? ''
    if (!all?.propellers.some((each) => each.id === propeller.value))
      propeller.value = all?.propellers[0]?.id ?? ''
  },
  { immediate: true },
)

// What stands beside the rods is what is run next, unless a run is being written down.
watch(
  () => mine.value?.pack,
  (now) => {
    if (now && !points.value.length) pack.value = now
  },
)

const fields = reactive({ throttle: '', thrust: '', amps: '', volts: '' })
const wrong = ref('')
const first = ref<HTMLInputElement>()

async function figure(text: string, what: string, kind: 'number' | 'thrust' = 'number') {
  if (!text.trim()) return null
  try {
    return await understand(text, kind, kind === 'thrust' ? units.value.thrust.name : undefined)
  } catch (error) {
    throw new Error(`${what}: ${whyNot(error)}`)
  }
}

// What was typed leaves the fields at once: a second press never keeps it twice.
let busy = false
async function addPoint() {
  if (busy) return
  busy = true
  wrong.value = ''
  const given = { ...fields }
  Object.assign(fields, { throttle: '', thrust: '', amps: '', volts: '' })
  first.value?.focus()
  try {
    const percent = await figure(given.throttle, 'Throttle')
    if (percent === null || percent < 0 || percent > 100)
      throw new Error('Throttle: say it in per cent, 0 to 100')
    const point: RunPoint = {
      throttle: percent / 100,
      thrust_gf: await figure(given.thrust, 'Thrust', 'thrust'),
      pack_a: await figure(given.amps, 'Amps'),
      pack_v: await figure(given.volts, 'Volts'),
      drawn_mah: 0,
    }
    if (point.thrust_gf === null && point.pack_a === null && point.pack_v === null)
      throw new Error('Type what the stand showed: thrust, amps or volts')
    points.value.push(point)
  } catch (error) {
    if (!Object.values(fields).some((text) => text)) Object.assign(fields, given)
    wrong.value = error instanceof Error ? error.message : whyNot(error)
  } finally {
    busy = false
  }
}

async function keepRun() {
  wrong.value = ''
  if (await addRun(pack.value, propeller.value, points.value, 4.2)) points.value = []
}

const nameOf = (kind: 'packs' | 'propellers', of: string) =>
  drive.value?.[kind].find((each) => each.id === of)?.name ?? of
const runs = computed(() =>
  [...(drive.value?.runs ?? [])].reverse().map((run) => ({
    ...run,
    day: new Date(run.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' }),
    with: `${nameOf('packs', run.pack)}, ${nameOf('propellers', run.propeller)}`,
    most: Math.max(...run.points.map((each) => each.thrust_gf ?? 0)),
    other: nameOf(
      'propellers',
      (told.value?.others ?? []).find((each) => each.run === run.id)?.propeller ?? '',
    ),
    doubts: (told.value?.doubts ?? []).filter((each) => each.run === run.id),
  })),
)
const statedOff = computed(() => told.value?.doubts.some((each) => each.run === 'stated'))
type Doubt = NonNullable<typeof told.value>['doubts'][number]
function why(run: { points: RunPoint[] }, doubt: Doubt): string {
  const point = run.points[doubt.point]
  const at = point ? `at ${Math.round(100 * point.throttle)} %` : ''
  const what = { thrust: 'thrust', current: 'current', voltage: 'voltage' }[doubt.quantity]
  if (doubt.slip === 'ounces' && doubt.would_be !== null)
    return (
      `the ${what} ${at} was read in ounces? It would be ` +
      `${number(doubt.would_be, 'thrust')} ${units.value.thrust.name}`
    )
  if (doubt.slip === 'other_throttle' && doubt.would_be !== null)
    return `the point ${at} fits ${Math.round(100 * doubt.would_be)} % throttle`
  return `the ${what} ${at} is far from what the others say`
}
</script>

<template>
  <section aria-label="On the stand">
    <h2>On the stand</h2>
    <p class="caution small" role="note">
      Held down, eyes protected, nobody in line with the disc. Pack off before you touch it.
    </p>
    <form @submit.prevent="addPoint">
      <label
        >with
        <select v-model="pack" class="entry" aria-label="Pack on the stand">
          <option v-for="each in drive?.packs" :key="each.id" :value="each.id">
            {{ each.name }}
          </option>
        </select>
        <select v-model="propeller" class="entry" aria-label="Propeller on the stand">
          <option v-for="each in drive?.propellers" :key="each.id" :value="each.id">
            {{ each.name }}
          </option>
        </select></label
      >
      <div class="point">
        <label
          >throttle, %
          <input
            ref="first"
            v-model="fields.throttle"
            class="entry figure"
            inputmode="decimal"
            aria-label="Throttle"
        /></label>
        <label
          >thrust, {{ units.thrust.name }}
          <input
            v-model="fields.thrust"
            class="entry figure"
            inputmode="decimal"
            aria-label="Thrust"
        /></label>
        <label
          >amps
          <input v-model="fields.amps" class="entry figure" inputmode="decimal" aria-label="Amps"
        /></label>
        <label
          >volts
          <input v-model="fields.volts" class="entry figure" inputmode="decimal" aria-label="Volts"
        /></label>
      </div>
      <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
      <div class="acts">
        <v-btn class="press--main" type="submit">Keep the point</v-btn>
        <v-btn v-if="points.length" @click="keepRun">
          Keep the run, {{ points.length }} {{ points.length === 1 ? 'point' : 'points' }}
        </v-btn>
      </div>
    </form>
    <ol v-if="points.length" class="small" aria-label="Points not kept as a run yet">
      <li v-for="(point, at) in points" :key="at" class="figure">
        {{ Math.round(100 * point.throttle) }} %
        <template v-if="point.thrust_gf !== null">
          · {{ number(point.thrust_gf, 'thrust') }} {{ units.thrust.name }}</template
        >
        <template v-if="point.pack_a !== null"> · {{ point.pack_a }} A</template>
        <template v-if="point.pack_v !== null"> · {{ point.pack_v }} V</template>
        <button type="button" class="plainly under faint" @click="points.splice(at, 1)">
          remove
        </button>
      </li>
    </ol>
    <ul v-if="runs.length" aria-label="Runs">
      <li v-for="run in runs" :key="run.id" :class="{ gone: run.set_aside !== null }">
        <span>
          <strong>{{ run.day }}</strong>, {{ run.with }}:
          <span class="figure">{{ run.points.length }}</span>
          {{ run.points.length === 1 ? 'point' : 'points' }}, up to
          <span class="figure">{{ number(run.most, 'thrust') }}</span> {{ units.thrust.name }}
        </span>
        <p v-for="(doubt, at) in run.doubts" :key="at" class="note small" role="note">
          Not believed: {{ why(run, doubt) }}.
        </p>
        <p v-if="run.other" class="note small" role="note">
          It looks like {{ run.other }}: that explains the run far better.
        </p>
        <button
          type="button"
          class="plainly under small faint"
          @click="setAside(run.id, run.set_aside === null ? 'wrong' : null)"
        >
          {{ run.set_aside === null ? 'set aside' : 'count it again' }}
        </button>
      </li>
    </ul>
    <p v-if="statedOff" class="note small" role="note">
      The thrust stated on the Plan is far from what the runs say; it is not believed here.
    </p>
    <p v-if="!runs.length" class="small faint">
      No run yet: all below is a guess by listing and size, and what the Plan states. The kitchen
      scale will do as a stand: plane nose down on the pan, and the change of the reading is the
      thrust.
    </p>
  </section>
</template>

<style scoped>
section,
form {
  display: grid;
  gap: 10px;
}

.caution,
.note {
  border-left: 4px solid var(--rust);
  background: var(--rust-wash);
  padding: 6px 10px;
  margin: 0;
}

.point {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
}

.point label {
  display: grid;
  font-size: 12px;
  color: var(--faint);
}

.point input {
  width: 100%;
  min-width: 0;
  font-size: 17px;
  border: 1px solid var(--line);
  text-align: right;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

ol,
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  font-size: 14px;
}

.gone > span {
  text-decoration: line-through;
}
</style>
