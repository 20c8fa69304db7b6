<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import type { Twin } from '../api/client'
import TheMark from '../shared/TheMark.vue'
import { useBuild } from '../shared/useBuild'
import { liesWithin } from '../shared/assemblies'
import { useUnits } from '../shared/units'
import PartTag from './PartTag.vue'
import { useBench } from './useBench'

const { id, build, assessment, aboard } = useBuild()
const { isOn, press, pressAll, pressSample, pan } = useBench()
const { quantity, number, inProportion, units, rate, perUnit } = useUnits()

const finding = ref(false)
const sought = ref('')
const search = ref<Pick<HTMLElement, 'focus' | 'blur'>>()

/** Put on by keys, the hand goes on to Record: that is what Space presses next. */
function pressed(part: string, byKeys: boolean) {
  const puts = !isOn(part)
  press(part)
  if (byKeys && puts) document.querySelector<HTMLElement>('.record')?.focus()
}

async function find() {
  finding.value = true
  await nextTick()
  search.value?.focus()
}

function found() {
  const first = groups.value[0]?.parts[0]
  if (sought.value && first) press(first.part.id)
  stop()
}

function stop() {
  finding.value = false
  sought.value = ''
  search.value?.blur()
}

const masses = computed(() => new Map(assessment.value?.parts.map((mass) => [mass.id, mass])))
const groups = computed(() => {
  const wanted = sought.value.trim().toLowerCase()
  const there = (build.value?.parts ?? []).filter(
    (part) => !part.retired && (!wanted || part.name.toLowerCase().includes(wanted)),
  )
  const names = (assessment.value?.assemblies ?? []).map((each) => each.name)
  const told = names.map((name) => ({
    name,
    title: name.split('/').at(-1) || 'Loose parts',
    depth: name.split('/').length - 1,
    total: assessment.value?.assemblies.find((each) => each.name === name),
    parts: there
      .filter((part) => part.assembly === name && !part.host)
      .flatMap((part) => [part, ...there.filter((each) => each.host === part.id)])
      .flatMap((part) => {
        const mass = masses.value.get(part.id)
        return mass ? [{ part, mass }] : []
      }),
    twins: (assessment.value?.twins ?? []).flatMap((twin) => {
      if (!twin.is_sure) return []
      const left = there.find((part) => part.id === twin.left && part.assembly === name)
      return left ? [{ left: twin.left, ...twinWords(twin, left.name) }] : []
    }),
  }))
  return told.filter((group) => group.parts.length || !wanted)
})

/** How a pair compares, and what to do about it, where it is sure. */
function twinWords(twin: Twin, left: string): { words: string; cure: string } {
  const side = twin.heavier_g > 0 ? 'right' : 'left'
  const pair = left
    .replace(/[ ,]*\b(left|port)\b[ ,]*/i, ' ')
    .trim()
    .toLowerCase()
  const gap = `${number(Math.abs(twin.heavier_g), 'mass')} ±${number(2 * twin.heavier_sd_g, 'mass')}`
  const light = twin.moment_gmm > 0 ? 'left' : 'right'
  return {
    words: `Pair, ${pair}: ${side} one heavier by ${gap} ${units.value.mass.name}.`,
    cure: twin.cure_g === null ? '' : `${quantity(twin.cure_g, 'mass')} at the ${light} tip.`,
  }
}

/** All that an assembly is put together of, what lies within it included. */
const within = (name: string) =>
  (build.value?.parts ?? [])
    .filter((part) => !part.retired && liesWithin(part, name))
    .map((part) => part.id)

const noParts = computed(
  () => !build.value?.parts.some((part) => !part.retired && part.pedigree !== 'allowance'),
)

const samples = computed(() =>
  (build.value?.lots ?? []).map((lot) => ({
    lot,
    told: assessment.value?.lots.find((each) => each.id === lot.id),
    on: pan.value.samples.some((sample) => sample.lot === lot.id),
  })),
)

function wholePlane() {
  pressAll([...aboard.value])
}

defineExpose({ find })
</script>

<template>
  <section aria-label="Tray">
    <form v-if="finding" class="find" @submit.prevent="found">
      <v-text-field
        ref="search"
        v-model="sought"
        aria-label="Find a part"
        placeholder="find a part, Enter puts it on the pan"
        @keydown.esc.stop="stop"
      />
    </form>
    <div class="columns">
      <div v-for="group in groups" :key="group.name" class="group">
        <button
          type="button"
          class="plainly heading"
          :title="`Put all of it on the pan`"
          :style="{ paddingLeft: `${12 * group.depth}px` }"
          @click="pressAll(within(group.name))"
        >
          <h3>{{ group.title }}</h3>
          <span v-if="group.total" class="figure faint">{{
            quantity(group.total.mass_g, 'mass', inProportion(group.total.mass_g))
          }}</span>
        </button>
        <PartTag
          v-for="{ part, mass } in group.parts"
          :key="part.id"
          :part="part"
          :mass="mass"
          :on="isOn(part.id)"
          :ashore="!aboard.has(part.id)"
          @press="(byKeys: boolean) => pressed(part.id, byKeys)"
        />
        <p v-for="twin in group.twins" :key="twin.left" class="twin small" :data-twin="twin.left">
          {{ twin.words }}
          <strong v-if="twin.cure">{{ twin.cure }}</strong>
        </p>
      </div>
      <div v-if="samples.length" class="group">
        <h3 class="heading">Sheets and rolls</h3>
        <button
          v-for="sample in samples"
          :key="sample.lot.id"
          type="button"
          class="plainly sample"
          :class="{ on: sample.on }"
          :aria-pressed="sample.on"
          @click="pressSample(sample.lot.id)"
        >
          <span>{{ sample.lot.name }}</span>
          <span class="figure"
            >{{ perUnit(sample.told?.constant ?? sample.lot.constant, sample.lot.unit) }}
            <span class="faint"
              >±{{ perUnit(2 * (sample.told?.sd ?? sample.lot.doubt), sample.lot.unit) }}
              {{ rate(sample.lot.unit).name }}</span
            ></span
          >
        </button>
      </div>
    </div>
    <p v-if="noParts" class="faint">
      No parts yet: add them on the
      <router-link :to="{ name: 'plan', params: { id } }">Plan</router-link>, one line each.
    </p>
    <p v-if="!groups.length && sought" class="faint">No part is called that.</p>
    <footer class="faint">
      <span><TheMark mark="guess" /> guess</span>
      <span><TheMark mark="listed" /> listed, calculated</span>
      <span><TheMark mark="difference" /> by difference</span>
      <span><TheMark mark="weighed" /> weighed</span>
      <button type="button" class="plainly whole" @click="wholePlane">
        the whole plane on the pan
      </button>
    </footer>
  </section>
</template>

<style scoped>
section {
  padding: 12px 16px;
  display: flex;
  flex-direction: column;
}

.twin {
  margin: 2px 4px 6px 12px;
  color: var(--faint);
}

.twin strong {
  color: var(--ink);
}

.find .v-text-field {
  margin-bottom: 10px;
}

.columns {
  columns: 2 210px;
  column-gap: 14px;
}

.group {
  margin-bottom: 10px;
}

.heading {
  display: flex;
  width: 100%;
  justify-content: space-between;
  align-items: baseline;
  padding: 2px 2px 3px;
  break-after: avoid;
}

.heading.plainly:hover h3 {
  text-decoration: underline;
}

.sample {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  padding: 5px 6px;
  border-bottom: 1px solid var(--line);
  font-size: 13px;
  break-inside: avoid;
}

.sample .figure {
  white-space: nowrap;
}

.sample:hover,
.sample.on {
  background: var(--sea-wash);
}

footer {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  font-size: 13px;
  margin-top: auto;
  padding-top: 10px;
}

footer span {
  display: inline-flex;
  gap: 5px;
  align-items: center;
}

.whole {
  text-decoration: underline;
}
</style>
