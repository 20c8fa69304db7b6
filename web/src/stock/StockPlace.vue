<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import OtherWays from './OtherWays.vue'
import TheBudget from './TheBudget.vue'
import TheDrawer from './TheDrawer.vue'
import TheOutlines from './TheOutlines.vue'
import TheRack from './TheRack.vue'
import TheShopping from './TheShopping.vue'

const route = useRoute()

const VIEWS = [
  { name: 'rack', title: 'Rack', view: TheRack },
  { name: 'outlines', title: 'Parts from outlines', view: TheOutlines },
  { name: 'ways', title: 'Other ways', view: OtherWays },
  { name: 'drawer', title: 'Drawer', view: TheDrawer },
  { name: 'shopping', title: 'Shopping', view: TheShopping },
  { name: 'budget', title: 'Budget', view: TheBudget },
] as const

const here = computed(() => VIEWS.find((each) => each.name === route.query['on']) ?? VIEWS[0])
</script>

<template>
  <div class="stock">
    <nav aria-label="In the stock">
      <router-link
        v-for="each in VIEWS"
        :key="each.name"
        :to="{ query: { on: each.name } }"
        :class="{ here: each === here }"
        :aria-current="each === here ? 'page' : undefined"
        replace
        >{{ each.title }}</router-link
      >
    </nav>
    <component :is="here.view" />
  </div>
</template>

<style scoped>
.stock {
  padding: 10px 24px 48px;
}

nav {
  display: flex;
  flex-wrap: wrap;
  gap: 0 22px;
  border-bottom: 1px solid var(--ink);
  margin-bottom: 16px;
}

nav a {
  color: var(--faint);
  text-decoration: none;
  padding: 6px 0 5px;
}

nav a:hover {
  color: var(--ink);
}

nav .here {
  color: var(--ink);
  font-weight: 600;
  border-bottom: 4px solid var(--brass);
  margin-bottom: -2px;
}

@media (max-width: 700px) {
  .stock {
    padding: 10px 14px 48px;
  }
}
</style>
