<script setup lang="ts">
import TheRule from './shared/TheRule.vue'
import TheWords from './shared/TheWords.vue'
import WhatWaits from './shared/WhatWaits.vue'
import { useLamp } from './shared/useLamp'

useLamp()
</script>

<template>
  <v-app>
    <TheRule />
    <main class="places">
      <router-view />
    </main>
    <WhatWaits />
    <TheWords />
  </v-app>
</template>

<style scoped>
.places {
  margin-left: var(--rule-width);
  min-height: 100dvh;
}

@media (max-width: 700px) {
  .places {
    padding-bottom: 64px;
  }
}
</style>
