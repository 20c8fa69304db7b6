<script setup lang="ts">
import { computed, nextTick } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import PlaceTabs from '../shared/PlaceTabs.vue'
import TextCell from '../shared/TextCell.vue'
import { useBuild } from '../shared/useBuild'
import { useKeys } from '../shared/useKeys'
import TheDay from './TheDay.vue'
import TheDrawing from './TheDrawing.vue'
import TheFit from './TheFit.vue'
import TheLoadouts from './TheLoadouts.vue'
import TheNotebook from './TheNotebook.vue'
import TheParts from './TheParts.vue'
import TheScales from './TheScales.vue'
import TheTargets from './TheTargets.vue'

const route = useRoute()
const router = useRouter()
const { build, change } = useBuild()

const VIEWS = [
  { name: 'drawing', title: 'Drawing', view: TheDrawing },
  { name: 'targets', title: 'Targets', view: TheTargets },
  { name: 'parts', title: 'Parts', view: TheParts },
  { name: 'loadouts', title: 'Loadouts', view: TheLoadouts },
  { name: 'fit', title: 'Fit', view: TheFit },
  { name: 'day', title: 'Day', view: TheDay },
  { name: 'notebook', title: 'Notebook', view: TheNotebook },
  { name: 'scales', title: 'Scales', view: TheScales },
] as const

const here = computed(() => VIEWS.find((each) => each.name === route.query['on']) ?? VIEWS[0])

/** Go to a view, and into what a hand there begins with. */
async function go(on: (typeof VIEWS)[number]['name'], into?: string) {
  await router.replace({ query: { on } })
  await nextTick()
  const first = into ? document.querySelector<HTMLElement>(`${into} input`) : null
  if (first) first.focus()
  else if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
}

useKeys(
  {},
  {
    a: () => void go('parts', '[data-first]'),
    '/': () => void go('parts', '[data-find]'),
    w: () => void go('drawing', '.first input'),
    g: () => void go('targets'),
    p: () => void go('parts'),
    o: () => void go('loadouts', '[data-first]'),
    f: () => void go('fit'),
    d: () => void go('day'),
    n: () => void go('notebook'),
    k: () => void go('scales'),
  },
)
</script>

<template>
  <div class="plan">
    <PlaceTabs :views="VIEWS" :here="here.name" label="On the plan">
      <span class="space" />
      <label class="small faint called"
        >called
        <TextCell
          :value="build?.name ?? ''"
          label="Name of the build"
          @kept="change(() => ({ name: $event }))"
      /></label>
    </PlaceTabs>
    <component :is="here.view" />
  </div>
</template>

<style scoped>
.plan {
  padding: 10px 24px 48px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 16px;
}

.space {
  flex: 1;
}

.called {
  padding-bottom: 4px;
}

@media (max-width: 1000px) {
  .plan {
    padding: 10px 14px 48px;
  }
}

@media (max-width: 700px) {
  .space,
  .called {
    display: none;
  }
}
</style>
