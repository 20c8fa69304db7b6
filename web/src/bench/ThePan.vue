<script setup lang="ts">
import { unfit, useOddTare } from '../say/tare'
import { computed, useTemplateRef } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useQuantity } from '../shared/useQuantity'
import { plainly, useUnits } from '../shared/units'
import PanDrawing from './PanDrawing.vue'
import PanLoads from './PanLoads.vue'
import TypedReading from './TypedReading.vue'
import { useBench } from './useBench'
import { useDoubts, useSuspicion } from './useDoubts'
import { useReading } from './useReading'
import WeighNext from './WeighNext.vue'

const oddTare = useOddTare()

const { build } = useBuild()
const bench = useBench()
const { simulated, scale, expected, isEmpty } = bench
const display = useReading()
const { digits } = display
const { units, number } = useUnits()
const typed = useQuantity('mass', () => units.value.mass.name)

const typing = computed(() => typed.text.value.trim() !== '')
const live = computed(() => {
  if (!typing.value) return display.shown.value
  return typed.value.value === undefined ? '–' : number(typed.value.value, 'mass', digits.value)
})
const lamp = computed(() =>
  typing.value ? { words: 'typed, not yet recorded', steady: false } : display.lamp.value,
)

const { question } = useDoubts()
const suspicion = useSuspicion(() => {
  if (typing.value) return typed.value.value
  return bench.isRead.value && bench.atRest.value ? bench.reading.value?.reading_g : undefined
})

/** What is odd about the scale itself: tared with something on it, or not at zero when empty. */
const odd = computed(() => {
  if (bench.unreadScale.value) return bench.unreadScale.value
  if (bench.note.value) return oddTare(bench.note.value)
  if (!bench.reading.value?.astray || !isEmpty.value) return ''
  return `Nothing is on the list, and the scale shows ${display.shown.value} ${units.value.mass.name}: take it off, put it on the list, or tare.`
})

const range = computed(() => {
  if (!expected.value) return ''
  const { reading_g: at, sd_g: sd } = expected.value
  const places = units.value.mass.name === 'g' ? (sd < 0.5 ? 1 : 0) : 2
  const write = (grams: number) => number(Math.max(grams, 0), 'mass', places)
  return `${write(at - 2 * sd)} to ${write(at + 2 * sd)}`
})

/** What the whole plane leaves out, and why: pan, sum and loadouts are one set. */
const leftOff = computed(() => {
  const on = new Set(bench.pan.value.loads.map((load) => load.part))
  const parts = (build.value?.parts ?? []).filter((part) => !part.retired)
  const fixed = parts.filter((part) => !part.option)
  if (on.size < 2 || !fixed.length || !fixed.every((part) => on.has(part.id))) return ''
  const off = parts.filter((part) => !on.has(part.id))
  return off.length ? `Not on it: ${off.map((part) => part.name).join(', ')}` : ''
})

const reading = useTemplateRef('reading')
defineExpose({ type: (key: string) => reading.value?.type(key) })
</script>

<template>
  <section aria-label="Pan">
    <div class="above faint">
      <span>on the pan</span>
      <span>
        {{ scale?.name ?? 'no scale' }},
        {{ scale ? `${plainly(scale.step_g / units.mass.base, 4)} ${units.mass.name}` : '' }} steps,
        <strong v-if="simulated" class="sea">simulated</strong>
        <span v-else-if="bench.isRead.value">on its cable</span>
        <span v-else>read by eye</span>
      </span>
    </div>
    <output class="live figure" :class="{ long: live.length > 6 }" aria-live="off">
      {{ live }}<span class="unit">{{ units.mass.name }}</span>
    </output>
    <div class="below">
      <span class="lamp" :class="{ steady: lamp.steady }" role="status">
        <span class="bulb" />{{ lamp.words }}
      </span>
      <span v-if="range" class="faint"
        >expected <span class="figure">{{ range }}</span> {{ units.mass.name }}</span
      >
    </div>
    <p v-if="suspicion" class="suspicion" role="status">
      <template v-if="suspicion.slips[0]">
        Not what was expected: {{ question(suspicion.slips[0]) }}
      </template>
      <template v-else>Not what was expected. Is everything on it, and nothing else?</template>
    </p>
    <p v-if="odd" class="suspicion" role="status">{{ odd }}</p>
    <PanDrawing :build="build" />
    <p v-if="expected?.warning" class="wrong small">
      {{ unfit(expected.warning, bench.pan.value.loads.length) }}
    </p>
    <PanLoads />
    <p v-if="leftOff" class="faint small">{{ leftOff }}</p>
    <div class="verbs">
      <v-btn class="press--main record" size="large" @click="bench.recordSteady">
        Record <kbd>Space</kbd>
      </v-btn>
      <v-btn size="large" @click="bench.tare">Tare <kbd>T</kbd></v-btn>
      <v-btn v-if="!isEmpty" class="press--quiet" size="large" @click="bench.clear">Clear</v-btn>
    </div>
    <TypedReading ref="reading" :typed="typed" :digits="digits" />
    <WeighNext />
  </section>
</template>

<style scoped>
section {
  padding: 12px 20px 20px;
}

.above,
.below {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  font-size: 13px;
}

.suspicion {
  border-left: 4px solid var(--rust);
  background: var(--rust-wash);
  padding: 5px 10px;
  margin-top: 6px;
  font-weight: 600;
}

.sea {
  color: var(--sea);
}

.live {
  display: block;
  text-align: right;
  font-size: 92px;
  line-height: 1.06;
  font-weight: 600;
  letter-spacing: -0.05em;
}

.live.long {
  font-size: 74px;
}

.unit {
  font-size: 32px;
  margin-left: 8px;
}

.lamp {
  font-weight: 600;
  display: inline-flex;
  gap: 7px;
  align-items: center;
  font-size: 15px;
}

.bulb {
  width: 10px;
  height: 10px;
  border: 2px solid var(--faint);
  border-radius: 50%;
}

.steady {
  color: var(--sea);
}

.steady .bulb {
  background: var(--sea);
  border-color: var(--sea);
}

.small {
  font-size: 13px;
  margin-top: 4px;
}

.verbs {
  display: flex;
  gap: 10px;
  margin-top: 10px;
}

.record {
  flex: 1;
}

kbd {
  margin-left: 8px;
}
</style>
