<script setup lang="ts">
import { onBeforeUnmount, onMounted, reactive, ref } from 'vue'
import type { RunPoint } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { understand, whyNot } from '../shared/useQuantity'
import { plainly, useUnits } from '../shared/units'
import { useDrive } from './useDrive'
import { usePoints, type TypedPoint } from './usePoints'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { drive } = useDrive()
const { points, typed, pack, propeller, lever, leverDoubt, keepRun } = usePoints()
const { number, units } = useUnits()

const fields = reactive<TypedPoint>({ throttle: '', thrust: '', amps: '', volts: '' })
const wrong = ref('')
const first = ref<Pick<HTMLElement, 'focus' | 'blur'>>()

/** The workshop does not answer: what was typed is asked again. */
class AwayError extends Error {}

async function figure(text: string, what: string, kind: 'number' | 'thrust' = 'number') {
  if (!text.trim()) return null
  try {
    return await understand(text, kind, kind === 'thrust' ? units.value.thrust.name : undefined)
  } catch (error) {
    if (error instanceof TypeError) throw new AwayError(whyNot(error), { cause: error })
    throw new Error(`${what}: ${whyNot(error)}`, { cause: error })
  }
}

async function understood(given: TypedPoint): Promise<RunPoint> {
  const percent = await figure(given.throttle, 'Throttle')
  if (percent === null || percent < 0 || percent > 100)
    throw new Error('Throttle: say it in per cent, 0 to 100')
  const point = {
    throttle: percent / 100,
    thrust_gf: await figure(given.thrust, 'Thrust', 'thrust'),
    pack_a: await figure(given.amps, 'Amps'),
    pack_v: await figure(given.volts, 'Volts'),
    drawn_mah: 0,
  }
  if (point.thrust_gf === null && point.pack_a === null && point.pack_v === null)
    throw new Error('Type what the stand showed: thrust, amps or volts')
  return point
}

// What was typed leaves the fields at once, and waits in its order until it is understood: a second
// press never keeps it twice, and a page that is closed meanwhile still has it.
const isBlank = (given: TypedPoint) => !Object.values(given).some((text) => text.trim())
function addPoint() {
  wrong.value = ''
  const given = { ...fields }
  if (isBlank(given)) {
    if (!typed.value.length) wrong.value = 'Throttle: say it in per cent, 0 to 100'
    return
  }
  typed.value.push(given)
  Object.assign(fields, { throttle: '', thrust: '', amps: '', volts: '' })
  first.value?.focus()
  void settle()
}

let busy = false
let gone = false
let again: ReturnType<typeof setTimeout> | undefined
async function settle() {
  if (busy) return
  busy = true
  clearTimeout(again)
  try {
    for (let next = typed.value[0]; next; next = typed.value[0]) {
      const point = await understood(next)
      if (gone) return // it waits for the form that is open then
      points.value.push(point)
      typed.value.shift()
    }
  } catch (error) {
    if (gone) return
    if (error instanceof AwayError) again = setTimeout(settle, 2000)
    else {
      const given = typed.value.shift()
      if (given && isBlank(fields)) Object.assign(fields, given)
    }
    wrong.value = (error as Error).message
  } finally {
    busy = false
  }
}
onMounted(settle)
onBeforeUnmount(() => {
  gone = true
  clearTimeout(again)
})
</script>

<template>
  <div class="points">
    <form @submit.prevent="addPoint">
      <label
        >with
        <PickList v-model="pack" :items="named(drive?.packs)" aria-label="Pack on the stand" />
        <PickList
          v-model="propeller"
          :items="named(drive?.propellers)"
          aria-label="Propeller on the stand"
      /></label>
      <div class="point">
        <label
          >throttle, %
          <v-text-field
            ref="first"
            v-model="fields.throttle"
            class="entry figure"
            inputmode="decimal"
            aria-label="Throttle"
        /></label>
        <label
          >thrust, {{ units.thrust.name }}
          <v-text-field
            v-model="fields.thrust"
            class="entry figure"
            inputmode="decimal"
            aria-label="Thrust"
        /></label>
        <label
          >amps
          <v-text-field
            v-model="fields.amps"
            class="entry figure"
            inputmode="decimal"
            aria-label="Amps"
        /></label>
        <label
          >volts
          <v-text-field
            v-model="fields.volts"
            class="entry figure"
            inputmode="decimal"
            aria-label="Volts"
        /></label>
      </div>
      <details class="small">
        <summary>
          {{ lever === 1 ? 'read straight off the scale; or over a lever' : 'over a lever' }}
        </summary>
        <p>
          The kitchen scale will do: plane nose down or up on the pan, and the change of the reading
          is the thrust. Or over a lever:
        </p>
        <p class="lever">
          the thrust is
          <QuantityCell
            :value="lever"
            kind="number"
            label="So many times what the scale shows"
            :least="0.05"
            :most="20"
            @kept="(times) => (lever = times ?? 1)"
          />
          times what the scale shows, give or take
          <QuantityCell
            :value="100 * leverDoubt"
            kind="number"
            label="Doubt of the lever, per cent"
            :least="0"
            :most="50"
            :digits="1"
            @kept="(percent) => (leverDoubt = (percent ?? 0) / 100)"
          />
          %: the arm of the motor over the arm of the pan.
        </p>
      </details>
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
        <template v-if="point.pack_a !== null"> · {{ plainly(point.pack_a) }} A</template>
        <template v-if="point.pack_v !== null"> · {{ plainly(point.pack_v) }} V</template>
        <v-verb class="faint" @click="points.splice(at, 1)"> remove </v-verb>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.points,
form {
  display: grid;
  gap: 10px;
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

.point .entry {
  width: 100%;
  min-width: 0;
  font-size: 17px;
  text-align: right;
}

.lever :deep(.cell) {
  width: 60px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
}
</style>
