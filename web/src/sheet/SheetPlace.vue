<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import PlaceTabs from '../shared/PlaceTabs.vue'
import FullSize from './FullSize.vue'
import TheFiles from './TheFiles.vue'
import TheLabels from './TheLabels.vue'
import ThePage from './ThePage.vue'
import { PAPERS, usePaper } from './usePaper'
import PickList from '../shared/PickList.vue'
import { byName } from '../shared/choices'

const VIEWS = [
  { name: 'page', title: 'Sheet', view: ThePage },
  { name: 'labels', title: 'Labels', view: TheLabels },
  { name: 'full', title: 'At full size', view: FullSize },
  { name: 'files', title: 'Files', view: TheFiles },
] as const

const route = useRoute()
const here = computed(() => VIEWS.find((each) => each.name === route.query['on']) ?? VIEWS[0])
const { paper } = usePaper()
</script>

<template>
  <div class="sheet-place">
    <PlaceTabs :views="VIEWS" :here="here.name" label="On paper" class="not-printed">
      <span class="space" />
      <label class="small faint"
        >paper <PickList v-model="paper" :items="byName(PAPERS)" aria-label="Paper"
      /></label>
    </PlaceTabs>
    <component :is="here.view" />
  </div>
</template>

<style scoped>
.sheet-place {
  padding: 10px 24px 48px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 16px;
}

.space {
  flex: 1;
}

@media (max-width: 700px) {
  .sheet-place {
    padding: 10px 14px 48px;
  }
}

@media print {
  .sheet-place {
    padding: 0;
    display: block;
  }
}
</style>
