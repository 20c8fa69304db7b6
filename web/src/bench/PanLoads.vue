<script setup lang="ts">
import { computed } from 'vue'
import type { Kind, Lot } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { understand, whyNot } from '../shared/useQuantity'
import { useWords } from '../shared/useWords'
import { useBench } from './useBench'

const { build } = useBuild()
const { pan, count, amount } = useBench()
const words = useWords()

const KINDS = { dm2: 'area', m: 'run', piece: 'pieces' } as const

const several = computed(() =>
  pan.value.loads.flatMap((load) => {
    const item = build.value?.items.find((each) => each.id === load.item)
    return item && (item.pieces > 1 || load.count !== 1) ? [{ ...load, item }] : []
  }),
)
const samples = computed(() =>
  pan.value.samples.flatMap((sample) => {
    const lot = build.value?.lots.find((each) => each.id === sample.lot)
    return lot ? [{ ...sample, lot }] : []
  }),
)

/** Read what was typed where everything typed is read; what is no number is said. */
async function read(event: Event, kind: Kind): Promise<number> {
  try {
    return await understand((event.target as HTMLInputElement).value, kind)
  } catch (error) {
    words.say(whyNot(error))
    return 0
  }
}

/** Enter keeps, and the hand is free for the next reading; Esc puts back what was there. */
function letGo(event: KeyboardEvent) {
  ;(event.target as HTMLInputElement).blur()
}
function putBack(event: KeyboardEvent, was: number) {
  const field = event.target as HTMLInputElement
  field.value = String(was)
  field.blur()
}

async function pieces(id: string, fitted: number, event: Event) {
  const given = await read(event, 'pieces')
  if (given > 0) count(id, given / fitted)
}

async function size(lot: string, unit: Lot['unit'], event: Event) {
  const given = await read(event, KINDS[unit])
  if (given > 0) amount(lot, given)
}
</script>

<template>
  <div v-if="several.length || samples.length" class="loads">
    <label v-for="load in several" :key="load.item.id">
      {{ load.item.name }}: pieces on the pan
      <input
        class="entry figure"
        inputmode="decimal"
        :value="+(load.count * load.item.pieces).toFixed(3)"
        @change="pieces(load.item.id, load.item.pieces, $event)"
        @keydown.enter.prevent="letGo"
        @keydown.esc.stop="putBack($event, +(load.count * load.item.pieces).toFixed(3))"
      />
      <span class="faint">of which {{ load.item.pieces }} fitted</span>
    </label>
    <label v-for="sample in samples" :key="sample.lot.id">
      {{ sample.lot.name }}: on the pan
      <input
        class="entry figure"
        inputmode="decimal"
        :value="sample.amount"
        @change="size(sample.lot.id, sample.lot.unit, $event)"
        @keydown.enter.prevent="letGo"
        @keydown.esc.stop="putBack($event, sample.amount)"
      />
      <span class="faint">{{
        { dm2: 'dm² (1 is 100 × 100 mm)', m: 'm', piece: 'pieces' }[sample.lot.unit]
      }}</span>
    </label>
  </div>
</template>

<style scoped>
.loads {
  display: grid;
  gap: 6px;
  margin-top: 8px;
  font-size: 13px;
}

label {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}

input {
  width: 64px;
}
</style>
