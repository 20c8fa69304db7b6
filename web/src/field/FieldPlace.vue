<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import PlaceTabs from '../shared/PlaceTabs.vue'
import { fixed, useUnits } from '../shared/units'
import FlightLog from './FlightLog.vue'
import LookingBack from './LookingBack.vue'
import TheControls from './TheControls.vue'
import TheList from './TheList.vue'
import TheRepair from './TheRepair.vue'
import ThrowForm from './ThrowForm.vue'
import ThrowPage from './ThrowPage.vue'
import WhatNext from './WhatNext.vue'
import WhatCameBack from './WhatCameBack.vue'
import { openField } from './useField'

const { field, told, open, waiting, outOfReach, query } = openField()
const { quantity, inProportion } = useUnits()

const VIEWS = [
  { name: 'list', title: 'Ready or not' },
  { name: 'throw', title: 'Throw' },
  { name: 'flights', title: 'Flights' },
  { name: 'controls', title: 'Controls' },
  { name: 'repair', title: 'Repair' },
  { name: 'back', title: 'Looking back' },
] as const

const route = useRoute()
const here = computed(
  () => VIEWS.find((each) => each.name === route.query['on'])?.name ?? VIEWS[0].name,
)
const balance = computed(() => {
  const at = told.value?.cg_percent
  return at == null ? 'not balanced yet' : `balances at ${fixed(at, 1)} % MAC`
})
</script>

<template>
  <div v-if="field && told" class="place">
    <PlaceTabs class="tabs" :views="VIEWS" :here="here" label="In Field" />
    <header>
      <p>
        <strong>{{ told.name }}</strong>
        <span class="faint small">
          {{
            told.auw_g === null
              ? ''
              : `${quantity(told.auw_g, 'mass', inProportion(told.auw_g))} · `
          }}{{ balance }}
        </span>
      </p>
      <p class="small state">
        <span v-if="outOfReach" class="faint">workshop out of reach</span>
        <strong v-if="waiting.length" class="waits" role="status">
          {{ waiting.length }} {{ waiting.length === 1 ? 'entry waits' : 'entries wait' }} here
        </strong>
        <span v-else-if="!outOfReach" :class="open.length ? 'wrong' : 'faint'">
          {{ open.length ? `not ready: ${open.length} open` : 'ready' }}
        </span>
      </p>
    </header>
    <WhatCameBack />
    <div class="views" :class="here">
      <TheList v-if="here === 'list'" />
      <template v-else-if="here === 'throw'">
        <ThrowForm />
        <div class="told">
          <WhatNext />
          <ThrowPage />
        </div>
      </template>
      <FlightLog v-else-if="here === 'flights'" />
      <TheControls v-else-if="here === 'controls'" />
      <TheRepair v-else-if="here === 'repair'" />
      <LookingBack v-else />
    </div>
  </div>
  <div v-else-if="query.isError.value" class="blank">
    <h2>The field does not answer</h2>
    <p class="faint">The workshop is out of reach, and this page was never opened here before.</p>
    <v-btn @click="query.refetch()">Try again</v-btn>
  </div>
  <p v-else class="blank faint" aria-busy="true">Looking at the plane …</p>
</template>

<style scoped>
.tabs {
  padding: 8px 18px 0;
}

header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 18px;
  padding: 10px 18px;
  background: var(--paper);
  border-bottom: 1px solid var(--ink);
}

header p {
  margin: 0;
  display: flex;
  gap: 10px;
  align-items: baseline;
}

.waits {
  color: var(--sea);
}

.views {
  padding: 16px 18px 64px;
}

.views.throw {
  display: grid;
  grid-template-columns: minmax(0, 440px) minmax(0, 1fr);
  gap: 32px;
}

.told {
  display: grid;
  gap: 20px;
  align-content: start;
  min-width: 0;
}

.views :deep(:is(.plainly, .verb)) {
  min-height: 28px;
}

.blank {
  padding: 48px 32px;
}

@media (max-width: 900px) {
  .views.throw {
    grid-template-columns: minmax(0, 1fr);
  }

  .tabs {
    flex-wrap: nowrap;
    gap: 0 16px;
    overflow-x: auto;
    overflow-y: hidden;
  }

  .tabs :deep(a) {
    flex: none;
    min-height: 44px;
    display: flex;
    align-items: center;
  }

  .views {
    padding-bottom: 120px;
  }

  .views :deep(:is(.plainly, .verb)) {
    min-height: 44px;
  }
}
</style>
