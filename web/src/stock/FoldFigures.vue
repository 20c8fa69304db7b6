<script setup lang="ts">
import type { Folded } from '../api/client'
import { fixed, useUnits } from '../shared/units'

/** What comes out of a fold: what to cut, the room inside, and what it weighs. */
defineProps<{ folded: Folded; net: number; grams: number | null }>()

const { units, quantity, number } = useUnits()
</script>

<template>
  <dl>
    <dt>to cut, across the folds</dt>
    <dd class="figure">
      {{ number(folded.unfolded_mm, 'length', 'fine') }} {{ units.length.name }}
    </dd>
    <dt>each fold is opened by</dt>
    <dd class="figure">
      {{ folded.folds.map((fold) => number(fold.opened_mm, 'length', 'fine')).join(', ') }}
      {{ units.length.name }}
    </dd>
    <template v-for="room in folded.rooms" :key="room.at_mm">
      <dt>
        clear inside{{
          room.at_mm ? `, ${quantity(room.at_mm, 'length')} behind the front` : ', at the front'
        }}
      </dt>
      <dd class="figure">
        {{ number(room.width_mm, 'length', 'fine') }} wide,
        {{ number(room.height_mm, 'length', 'fine') }} {{ units.length.name }} high
      </dd>
    </template>
    <template v-for="each in folded.doublers" :key="each.part.name">
      <dt>glued in beside it</dt>
      <dd class="figure">
        {{ each.pieces > 1 ? `${each.pieces} × ` : '' }}{{ quantity(each.part.area_dm2, 'area') }}
      </dd>
    </template>
    <dt>board, less what the folds take out</dt>
    <dd class="figure">
      {{ quantity(net, 'area') }}{{ grams === null ? '' : `, ${quantity(grams, 'mass')}` }}
    </dd>
    <template v-if="folded.chord_mm !== null">
      <dt>chord and thickness that come out</dt>
      <dd class="figure">
        {{ number(folded.chord_mm, 'length', 'fine') }} by
        {{ number(folded.thickness_mm ?? 0, 'length', 'fine') }} {{ units.length.name }},
        {{ fixed((100 * (folded.thickness_mm ?? 0)) / folded.chord_mm, 1) }} %
      </dd>
      <dt>thickest behind the leading edge</dt>
      <dd class="figure">
        {{ number(folded.thickest_at_mm ?? 0, 'length', 'fine') }} {{ units.length.name }}
      </dd>
      <dt>left inside for a spar</dt>
      <dd class="figure">
        {{ number(folded.inside_mm ?? 0, 'length', 'fine') }} {{ units.length.name }}
      </dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 4px 18px;
}

@media (max-width: 700px) {
  dl {
    grid-template-columns: 1fr;
  }
}
</style>
