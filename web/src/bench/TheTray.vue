<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import type { Twin } from '../api/client'
import TheMark from '../shared/TheMark.vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import TrayGroup from './TrayGroup.vue'
import TraySamples from './TraySamples.vue'
import { useBench } from './useBench'

const { id, build, assessment, aboard } = useBuild()
const { press, pressAll } = useBench()
const { quantity, number, units } = useUnits()

const finding = ref(false)
const sought = ref('')
const search = ref<Pick<HTMLElement, 'focus' | 'blur'>>()

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
    grams: assessment.value?.assemblies.find((each) => each.name === name)?.mass_g ?? null,
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

const noParts = computed(
  () => !build.value?.parts.some((part) => !part.retired && part.pedigree !== 'allowance'),
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
      <TrayGroup v-for="group in groups" :key="group.name" v-bind="group" />
      <TraySamples />
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

.find .v-text-field {
  margin-bottom: 10px;
}

.columns {
  columns: 2 210px;
  column-gap: 14px;
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
