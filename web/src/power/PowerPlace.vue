<script setup lang="ts">
import LeftToAdd from './LeftToAdd.vue'
import TheCurves from './TheCurves.vue'
import TheDrive from './TheDrive.vue'
import TheLadders from './TheLadders.vue'
import TheRuns from './TheRuns.vue'
import WhichPack from './WhichPack.vue'
import { useDrive } from './useDrive'

const { drive, begin } = useDrive()
</script>

<template>
  <div v-if="!drive" class="begin">
    <h1>Power</h1>
    <p>
      What does each pack give: how much thrust, how many amps, how many minutes, and how many grams
      are left? Say what the drive is; it is a guess until it ran on a stand, and says so.
    </p>
    <v-btn class="press--main" @click="begin">List the drive</v-btn>
  </div>
  <div v-else class="power">
    <div class="stand">
      <TheRuns />
      <TheDrive />
    </div>
    <div class="middle">
      <TheCurves />
      <WhichPack />
    </div>
    <div class="aside">
      <TheLadders />
      <LeftToAdd />
    </div>
  </div>
</template>

<style scoped>
.begin {
  max-width: 560px;
  padding: 24px 20px;
  display: grid;
  gap: 14px;
  justify-items: start;
}

.power {
  display: grid;
  grid-template-columns: 322px minmax(0, 1fr) 268px;
}

.stand,
.middle,
.aside {
  padding: 14px 18px 48px;
  display: grid;
  gap: 20px;
  align-content: start;
  min-width: 0;
}

.stand > *,
.middle > *,
.aside > * {
  min-width: 0;
}

.stand {
  border-right: 1px solid var(--ink);
  background: var(--paper);
}

.aside {
  border-left: 1px solid var(--ink);
  background: var(--paper);
}

@media (max-width: 1100px) {
  .power {
    grid-template-columns: minmax(0, 1fr);
  }

  .stand {
    order: 3;
    border-right: 0;
    border-top: 1px solid var(--ink);
  }

  .aside {
    order: 2;
    border-left: 0;
    border-top: 1px solid var(--ink);
  }
}
</style>
