<script setup lang="ts">
import { useKeys } from '../shared/useKeys'
import FrontView from './FrontView.vue'
import LoadoutTable from './LoadoutTable.vue'
import SchoolsRuler from './SchoolsRuler.vue'
import TheBeam from './TheBeam.vue'
import TheChecks from './TheChecks.vue'
import TheFix from './TheFix.vue'
import TheVariants from './TheVariants.vue'
import WhatMoves from './WhatMoves.vue'
import WingPlacing from './WingPlacing.vue'
import { openTrial } from './useTrial'

const { drop, keep } = openTrial()
useKeys({ escape: drop, enter: () => void keep() })
</script>

<template>
  <div class="balance">
    <div class="main">
      <TheBeam />
      <LoadoutTable />
      <FrontView />
      <TheVariants />
    </div>
    <div class="aside">
      <TheFix />
      <SchoolsRuler />
      <TheChecks />
      <WhatMoves />
      <WingPlacing />
    </div>
  </div>
</template>

<style scoped>
.balance {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
}

.main {
  padding: 12px 20px 48px;
  display: grid;
  gap: 26px;
  align-content: start;
  min-width: 0;
}

.aside {
  border-left: 1px solid var(--ink);
  background: var(--paper);
  padding: 14px 18px 48px;
  display: grid;
  gap: 18px;
  align-content: start;
  min-width: 0;
}

.aside > * + * {
  border-top: 1px solid var(--ink);
  padding-top: 14px;
}

/* On a phone what would fix it comes right after the beam. */
@media (max-width: 1000px) {
  .balance {
    grid-template-columns: minmax(0, 1fr);
    padding: 10px 14px 48px;
    gap: 22px;
  }

  .main,
  .aside {
    display: contents;
  }

  .main > *,
  .aside > * {
    min-width: 0;
  }

  .main > :first-child {
    order: -2;
  }

  .aside > :first-child {
    order: -1;
  }
}
</style>
