<script setup lang="ts">
import { computed } from 'vue'
import { useOutlineWords } from '../say/outlines'
import { useUnits } from '../shared/units'
import { useCandidates } from './useCandidates'

/** Gaps of a drawing's paths that are closed when asked [mm]. */
const CLOSED = 5

const { outlines, closing, close } = useCandidates()
const { units, number } = useUnits()
const { odd } = useOutlineWords()

const open = computed(() => outlines.value?.open ?? [])
const gap = computed(() => Math.max(0, ...open.value.map((path) => path.gap_mm)))
const closable = computed(() => open.value.filter((path) => path.gap_mm <= CLOSED))
</script>

<template>
  <template v-if="outlines">
    <p v-for="each in outlines.odd" :key="each.kind" class="faint small">{{ odd(each) }}</p>
    <p v-for="note in outlines.notes" :key="note" class="faint small">{{ note }}</p>
    <p v-if="open.length" class="small">
      {{ open.length === 1 ? 'One path is open' : `${open.length} paths are open` }}, gaps up to
      {{ number(gap, 'length', 2) }} {{ units.length.name }}: fold lines stay so.
      <v-verb v-if="closable.length && closing === 0" @click="close(CLOSED)">
        close gaps up to {{ number(CLOSED, 'length') }} {{ units.length.name }}
      </v-verb>
    </p>
    <p v-if="!outlines.parts.length && !open.length" class="faint">
      Nothing is drawn in it that encloses an area.
    </p>
  </template>
</template>
