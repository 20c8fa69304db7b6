<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answered, api, type Device } from '../api/client'
import { openEntries } from '../shared/entries'
import { outbox } from '../shared/outbox'
import { whyNot } from '../shared/useQuantity'
import { vFirst } from '../shared/vFirst'
import { useDoorState } from './useDoor'

const route = useRoute()
const router = useRouter()
const client = useQueryClient()
const door = useDoorState()

const code = ref('')
const name = ref('')
const wrong = ref('')
const busy = ref(false)

watch(
  () => route.hash,
  (hash) => {
    if (hash.length > 1) code.value = decodeURIComponent(hash.slice(1))
  },
  { immediate: true },
)
watch(
  door.data,
  (told) => {
    if (told?.here || told?.role) void router.replace('/')
  },
  { immediate: true },
)

async function comeIn() {
  busy.value = true
  wrong.value = ''
  try {
    const entry = { code: code.value.trim(), name: name.value.trim() }
    await answered<Device>(api.POST('/api/v1/door/entry', { body: entry }))
    void outbox.flush()
    openEntries()
    await client.invalidateQueries()
    await router.replace('/')
  } catch (error) {
    wrong.value =
      error instanceof TypeError
        ? 'The workshop does not answer. Is this phone on its network?'
        : whyNot(error, (field) => (field === 'code' ? '' : undefined))
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="let-in" @submit.prevent="comeIn">
    <h1>Come in</h1>
    <p>
      The code is shown in the Shed of the workshop's own machine, under “Let a phone in”. It opens
      once, within ten minutes.
    </p>
    <v-text-field
      v-model="code"
      v-first="!code"
      label="Code"
      autocomplete="off"
      autocapitalize="characters"
      spellcheck="false"
      maxlength="40"
    />
    <v-text-field
      v-model="name"
      v-first="!!code"
      label="What this phone is called"
      placeholder="my phone"
      autocomplete="off"
      maxlength="60"
    />
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <v-btn type="submit" class="press--main" :disabled="busy || !code.trim() || !name.trim()"
      >Come in</v-btn
    >
  </form>
</template>

<style scoped>
.let-in {
  display: grid;
  gap: 16px;
  justify-items: start;
  max-width: 420px;
  padding: 28px 20px;
}

.let-in > .v-input {
  width: 100%;
}
</style>
