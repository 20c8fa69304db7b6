<script setup lang="ts">
import type { Part, PartMass } from '../api/client'
import { liesWithin } from '../shared/assemblies'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import PartTag from './PartTag.vue'
import { useBench } from './useBench'

/** An assembly's tags in the tray: its name puts all of it on the pan, what lies within included. */
defineProps<{
  name: string
  title: string
  depth: number
  grams: number | null
  parts: { part: Part; mass: PartMass }[]
  twins: { left: string; words: string; cure: string }[]
}>()

const { build, aboard } = useBuild()
const { isOn, press, pressAll } = useBench()
const { quantity, inProportion } = useUnits()

/** Put on by keys, the hand goes on to Record: that is what Space presses next. */
function pressed(part: string, byKeys: boolean) {
  const puts = !isOn(part)
  press(part)
  if (byKeys && puts) document.querySelector<HTMLElement>('.record')?.focus()
}

/** All that an assembly is put together of, what lies within it included. */
const within = (name: string) =>
  (build.value?.parts ?? [])
    .filter((part) => !part.retired && liesWithin(part, name))
    .map((part) => part.id)
</script>

<template>
  <div class="group">
    <button
      type="button"
      class="plainly heading"
      :title="`Put all of it on the pan`"
      :style="{ paddingLeft: `${12 * depth}px` }"
      @click="pressAll(within(name))"
    >
      <h3>{{ title }}</h3>
      <span v-if="grams !== null" class="figure faint">{{
        quantity(grams, 'mass', inProportion(grams))
      }}</span>
    </button>
    <PartTag
      v-for="{ part, mass } in parts"
      :key="part.id"
      :part="part"
      :mass="mass"
      :on="isOn(part.id)"
      :ashore="!aboard.has(part.id)"
      @press="(byKeys: boolean) => pressed(part.id, byKeys)"
    />
    <p v-for="twin in twins" :key="twin.left" class="twin small" :data-twin="twin.left">
      {{ twin.words }}
      <strong v-if="twin.cure">{{ twin.cure }}</strong>
    </p>
  </div>
</template>

<style scoped>
.twin {
  margin: 2px 4px 6px 12px;
  color: var(--faint);
}

.twin strong {
  color: var(--ink);
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
</style>
