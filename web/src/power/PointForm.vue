<script setup lang="ts">
import { ref } from 'vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { plainly, useUnits } from '../shared/units'
import { useDrive } from './useDrive'
import { usePoints } from './usePoints'
import { useTypedPoints } from './useTypedPoints'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { drive } = useDrive()
const { points, pack, propeller, lever, leverDoubt, keepRun } = usePoints()
const { number, units } = useUnits()

const { fields, wrong, addPoint } = useTypedPoints()
const first = ref<Pick<HTMLElement, 'focus' | 'blur'>>()

function keepPoint() {
  addPoint()
  if (!fields.throttle) first.value?.focus()
}
</script>

<template>
  <div class="points">
    <form @submit.prevent="keepPoint">
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

li {
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
}
</style>
