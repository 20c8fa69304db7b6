<script setup lang="ts">
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useDecimalMark } from '../shared/units'
import ListFromFile from './ListFromFile.vue'
import PartsFromFile from './PartsFromFile.vue'

const { id } = useBuild()
const mark = useDecimalMark()

const LISTS = [
  { name: 'parts', title: 'Parts', what: 'as typed and as known now' },
  { name: 'weighings', title: 'Weighings', what: 'the till roll, set aside ones too' },
  { name: 'loadouts', title: 'Loadouts', what: 'each with its answers' },
  { name: 'throws', title: 'Throws', what: 'with their settings' },
  { name: 'runs', title: 'Runs of the drive', what: 'a line for each point' },
] as const
const base = computed(() => `/api/v1/builds/${encodeURIComponent(id.value)}`)
</script>

<template>
  <section aria-label="Files">
    <h2>Out</h2>
    <ul>
      <li>
        <a :href="`${base}/tables.xlsx`" download>Everything as one spreadsheet, xlsx</a>
        <span class="faint small">a sheet for each list, sums as formulas</span>
      </li>
      <li v-for="each in LISTS" :key="each.name">
        <a :href="`${base}/tables/${each.name}.csv?mark=${encodeURIComponent(mark)}`" download
          >{{ each.title }}, CSV</a
        >
        <span class="faint small">{{ each.what }}</span>
      </li>
      <li>
        <a :href="`${base}/file`" download>The whole build, JSON</a>
        <span class="faint small">comes in again in the Shed, with every reading</span>
      </li>
    </ul>
    <h2>In: a list of parts</h2>
    <PartsFromFile />
    <h2>In: weighings, loadouts, throws, runs</h2>
    <ListFromFile />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  grid-template-columns: minmax(0, 1fr);
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  min-height: 32px;
}

a {
  color: inherit;
  min-height: 24px;
  line-height: 24px;
}
</style>
