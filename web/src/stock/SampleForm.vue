<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { Lot } from '../api/client'
import { plainly, useUnits } from '../shared/units'
import OnScale from '../shared/OnScale.vue'
import { useSample } from './useSample'

const props = defineProps<{ lot: Lot }>()
const { size, reading, wrong, moved, record, waiting } = useSample(toRef(props, 'lot'))
const { number, quantity, units, exactness } = useUnits()

const UNIT = computed(() => ({
  dm2: units.value.length.name === 'mm' ? 'mm, or dm²' : `${units.value.area.name}, or 4 x 4 in`,
  m: units.value.run.name,
  piece: 'pieces',
}))

/** The whole of one, where its size is known. */
const whole = computed(() => {
  const { unit, length_mm: long, width_mm: width } = props.lot
  const { length, run } = units.value
  const side = (mm: number) => plainly(mm / length.base)
  if (unit === 'dm2' && long && width)
    return { text: `${side(long)} x ${side(width)} ${length.name}`, title: 'the whole sheet' }
  if (unit === 'm' && long)
    return { text: `${plainly(long / 1000 / run.base, 3)} ${run.name}`, title: 'the whole of one' }
  return null
})

const most = computed(() =>
  Math.max(1e-6, ...(moved.value?.parts ?? []).flatMap((part) => [part.before, part.after])),
)
</script>

<template>
  <form class="sample" @submit.prevent="record">
    <h3>Weigh a piece of it</h3>
    <div class="line">
      <label
        ><span class="faint small">a piece of</span>
        <v-text-field v-model="size" class="entry figure size" aria-label="Size of the piece" />
        <span class="faint small">{{ UNIT[lot.unit] }}</span></label
      >
      <v-verb v-if="whole" class="small" @click="size = whole.text">
        {{ whole.title }}
      </v-verb>
    </div>
    <div class="line">
      <label
        ><span class="faint small">weighs</span>
        <v-text-field
          v-model="reading"
          class="entry figure reading"
          aria-label="What the scale shows"
          inputmode="decimal"
          autocomplete="off"
        />
        <span class="faint small">{{ units.mass.name }}</span></label
      >
      <OnScale />
      <v-btn type="submit" class="press--main">Record</v-btn>
      <span v-if="waiting.length" class="faint small" role="status">on its way …</span>
    </div>
    <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
    <div v-if="moved" class="moved" role="status">
      <p>
        All-up weight
        <template v-for="(grams, at) in moved.auw" :key="at"
          ><template v-if="at"> → </template
          ><component :is="at ? 'strong' : 'span'" class="figure">{{
            quantity(grams, 'mass', exactness(moved.sd[at]))
          }}</component>
          <span class="faint figure">
            ±{{ number(2 * moved.sd[at]!, 'mass', exactness(moved.sd[at])) }}</span
          ></template
        >
      </p>
      <ul>
        <li v-for="part in moved.parts" :key="part.id" class="small">
          <span>{{ part.name }}</span>
          <svg viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
            <rect :width="(100 * part.before) / most" height="4" y="0" class="before" />
            <rect :width="(100 * part.after) / most" height="5" y="5" class="after" />
          </svg>
          <span class="figure"
            >{{ number(part.before, 'mass') }} → {{ number(part.after, 'mass') }}</span
          >
        </li>
      </ul>
      <p v-if="!moved.parts.length" class="faint small">Nothing is cut from it yet.</p>
    </div>
  </form>
</template>

<style scoped>
.sample {
  display: grid;
  gap: 8px;
}

.line,
label {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}

.size {
  width: 158px;
}

.reading {
  width: 118px;
  height: 42px;
  font-size: 22px;
}

.moved {
  display: grid;
  gap: 4px;
}

ul {
  max-height: 190px;
  overflow-y: auto;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 90px auto;
  gap: 10px;
  align-items: center;
}

svg {
  width: 90px;
  height: 10px;
}

.before {
  fill: var(--tag-line);
}

.after {
  fill: var(--sea);
  transition: width 250ms;
}
</style>
