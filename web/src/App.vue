<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { SHUT_OUT } from './api/client'
import KeySheet from './shared/KeySheet.vue'
import TheRule from './shared/TheRule.vue'
import TheWords from './shared/TheWords.vue'
import WhatWaits from './shared/WhatWaits.vue'
import { isTyping } from './shared/useKeys'
import NewerPages from './shared/NewerPages.vue'
import { useLamp } from './shared/useLamp'

useLamp()

const work = ref<HTMLElement>()
const keys = ref(false)

// The sheet of keys opens with single keys switched off as well: it is where they are switched on.
function pressed(event: KeyboardEvent) {
  if (event.key !== '?' || event.ctrlKey || event.metaKey || isTyping(event.target)) return
  if (document.querySelector('[role="dialog"]')) return
  event.preventDefault()
  keys.value = true
}
const router = useRouter()
const shutOut = () => void router.replace({ name: 'let-in' })
onMounted(() => {
  window.addEventListener('keydown', pressed)
  window.addEventListener(SHUT_OUT, shutOut)
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', pressed)
  window.removeEventListener(SHUT_OUT, shutOut)
})
</script>

<template>
  <v-app>
    <a class="skip" href="#work" @click.prevent="work?.focus()">To the work</a>
    <TheRule @keys="keys = true" />
    <main id="work" ref="work" class="places" tabindex="-1">
      <router-view />
    </main>
    <WhatWaits />
    <NewerPages />
    <TheWords />
    <KeySheet v-model="keys" />
  </v-app>
</template>

<style scoped>
.places {
  margin-left: var(--rule-width);
  min-height: 100dvh;
}

.places:focus {
  outline: none;
}

.skip {
  position: fixed;
  z-index: 40;
  top: 4px;
  left: 4px;
  padding: 8px 14px;
  background: var(--paper);
  color: var(--ink);
  border: 2px solid var(--ink);
  transform: translateY(-200%);
}

.skip:focus {
  transform: none;
}

@media (max-width: 700px) {
  .places {
    padding-bottom: 64px;
  }
}
</style>
