<script setup lang="ts">
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import PickList from '../shared/PickList.vue'
import { named, titled } from '../shared/choices'
import { AFT, DATUMS, useCandidates } from './useCandidates'

const LIES = titled({ flat: 'flat, as a wing', upright: 'upright, as a fin' })
const DATUMS_FROM = titled({ nose: 'nose', leading_edge: 'leading edge' })

const { build } = useBuild()
const { common, sheets } = useCandidates()

const groups = computed(() =>
  [...new Set(build.value?.parts.map((part) => part.assembly))].filter(Boolean),
)
</script>

<template>
  <div class="common">
    <label
      >cut from
      <PickList
        v-model="common.lot"
        :items="named(sheets.slice(1), sheets[0]?.name)"
        aria-label="Cut from"
    /></label>
    <label
      >assembly
      <v-text-field v-model="common.assembly" class="entry" list="groups" aria-label="Assembly" />
      <datalist id="groups">
        <option v-for="group in groups" :key="group" :value="group" />
      </datalist>
    </label>
    <label>drawn with <PickList v-model="common.aft" :items="AFT" aria-label="Drawn with" /></label>
    <label>lying <PickList v-model="common.lie" :items="LIES" aria-label="Lying" /></label>
    <label
      >station of <PickList v-model="common.datum" :items="DATUMS" aria-label="Station of"
    /></label>
    <label
      >from the
      <PickList v-model="common.reference" :items="DATUMS_FROM" aria-label="Stations from the"
    /></label>
  </div>
</template>

<style scoped>
.common {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  font-size: 13px;
}

.common .entry {
  max-width: 210px;
}
</style>
