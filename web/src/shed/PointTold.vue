<script setup lang="ts">
import { fixed, useUnits } from '../shared/units'
import type { SpanChordMap } from '../api/client'
import { FIGURES, per, type FigureKind } from './pointWords'

/** What a plane of one span and chord comes to; `asked`: its minutes stand among the wants. */
defineProps<{ point: SpanChordMap['points'][number]; asked: boolean }>()
const { quantity } = useUnits()

function figure(kind: FigureKind, value: number | null): string {
  if (value === null) return '–'
  if (kind === 'auw') return quantity(value, 'mass')
  if (kind === 'wing_loading') return quantity(value, 'loading')
  if (kind === 'minutes') return `${fixed(value, 0)} min`
  return kind === 'thrust_to_weight' ? fixed(value, 2) : ''
}
</script>

<template>
  <dl>
    <template v-if="!point.chances.some((each) => each.kind === 'auw')">
      <dt>all up</dt>
      <dd class="figure">{{ quantity(point.auw_g, 'mass') }}</dd>
    </template>
    <template v-for="each in point.chances" :key="each.kind">
      <template v-if="each.kind === 'balance' && each.chance === null">
        <dt>balance</dt>
        <dd>nothing aboard slides</dd>
      </template>
      <template v-else>
        <dt>{{ FIGURES[each.kind] }}</dt>
        <dd class="figure">{{ figure(each.kind, each.value) }} {{ per(each.chance) }}</dd>
      </template>
    </template>
    <template v-if="point.stall_m_s">
      <dt>stalls at</dt>
      <dd class="figure">{{ quantity(point.stall_m_s, 'speed') }}</dd>
    </template>
    <template v-if="point.minutes && !asked">
      <dt>level on the first pack</dt>
      <dd class="figure">{{ fixed(point.minutes, 0) }} min</dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: max-content max-content max-content max-content;
  gap: 4px 18px;
  margin: 6px 0 12px;
}

@media (max-width: 900px) {
  dl {
    grid-template-columns: max-content 1fr;
  }
}
</style>
