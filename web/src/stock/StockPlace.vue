<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import PlaceTabs from '../shared/PlaceTabs.vue'
import TheCutting from './TheCutting.vue'
import OtherWays from './OtherWays.vue'
import TheBudget from './TheBudget.vue'
import TheDrawer from './TheDrawer.vue'
import TheFolds from './TheFolds.vue'
import TheOutlines from './TheOutlines.vue'
import TheRack from './TheRack.vue'
import TheShopping from './TheShopping.vue'

const route = useRoute()

const VIEWS = [
  { name: 'rack', title: 'Rack', view: TheRack },
  { name: 'outlines', title: 'Parts from outlines', view: TheOutlines },
  { name: 'folds', title: 'Folds', view: TheFolds },
  { name: 'cutting', title: 'Cutting', view: TheCutting },
  { name: 'ways', title: 'Other ways', view: OtherWays },
  { name: 'drawer', title: 'Drawer', view: TheDrawer },
  { name: 'shopping', title: 'Shopping', view: TheShopping },
  { name: 'budget', title: 'Budget', view: TheBudget },
] as const

const here = computed(() => VIEWS.find((each) => each.name === route.query['on']) ?? VIEWS[0])
</script>

<template>
  <div class="stock">
    <PlaceTabs class="tabs" :views="VIEWS" :here="here.name" label="In the stock" />
    <component :is="here.view" />
  </div>
</template>

<style scoped>
.stock {
  padding: 10px 24px 48px;
}

.tabs {
  margin-bottom: 16px;
}

@media (max-width: 700px) {
  .stock {
    padding: 10px 14px 48px;
  }
}
</style>
