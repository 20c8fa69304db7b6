<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Opened } from '../api/client'
import { isTyping, useSingleKeys } from './useKeys'

defineEmits<{ keys: [] }>()
const single = useSingleKeys()

const route = useRoute()
const router = useRouter()
const client = useQueryClient()

const build = ref<string | null>(sessionStorage.getItem('oaken-scale-build'))
watch(
  () => route.params['id'],
  (id) => {
    if (typeof id !== 'string') return
    build.value = id
    sessionStorage.setItem('oaken-scale-build', id)
  },
  { immediate: true },
)

const told = ref<Opened>()
const stop = client.getQueryCache().subscribe(() => {
  told.value = client.getQueryData<Opened>(['build', build.value])
})
onBeforeUnmount(stop)

const places = computed(() => {
  const done = told.value?.assessment.progress
  const of = (name: string) => ({ name, params: { id: build.value ?? '' } })
  return [
    { key: '1', title: 'Shed', to: { name: 'shed' }, done: undefined, open: true },
    { key: '2', title: 'Plan', to: of('plan'), done: done?.plan, open: build.value !== null },
    { key: '3', title: 'Stock', to: of('stock'), done: done?.stock, open: build.value !== null },
    { key: '4', title: 'Bench', to: of('bench'), done: done?.bench, open: build.value !== null },
    {
      key: '5',
      title: 'Balance',
      to: of('balance'),
      done: done?.balance,
      open: build.value !== null,
    },
    { key: '6', title: 'Power', to: of('power'), done: done?.power, open: build.value !== null },
    { key: '7', title: 'Field', to: of('field'), done: undefined, open: build.value !== null },
    { key: '8', title: 'Sheet', to: of('sheet'), done: undefined, open: build.value !== null },
  ].filter((place) => place.open)
})

// On the Bench a digit begins a reading, so the places are reached with Alt there.
function pressed(event: KeyboardEvent) {
  const digit = /^Digit([1-8])$/.exec(event.code)?.[1]
  const place = places.value.find((each) => each.key === digit)
  if (!place || event.ctrlKey || event.metaKey) return
  if (!event.altKey && (!single.value || isTyping(event.target) || route.name === 'bench')) return
  event.preventDefault()
  // Leaving keeps what was typed.
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  void router.push(place.to)
}

onMounted(() => window.addEventListener('keydown', pressed))
onBeforeUnmount(() => window.removeEventListener('keydown', pressed))
</script>

<template>
  <nav class="rule" aria-label="Places">
    <router-link
      v-for="place in places"
      :key="place.title"
      :to="place.to"
      class="place"
      :class="{ here: route.name === place.to.name }"
      :aria-current="route.name === place.to.name ? 'page' : undefined"
    >
      <span class="title">{{ place.title }}</span>
      <span class="foot">
        <span class="figure key">{{ place.key }}</span>
        <span
          v-if="place.done !== undefined"
          class="done"
          :title="`${Math.round(place.done * 100)} % done`"
        >
          <span :style="{ width: `${place.done * 100}%` }" />
        </span>
      </span>
    </router-link>
    <v-verb class="bare keys" @click="$emit('keys')">keys <kbd>?</kbd></v-verb>
  </nav>
</template>

<style scoped>
.rule {
  position: fixed;
  inset: 0 auto 0 0;
  width: var(--rule-width);
  background:
    repeating-linear-gradient(to bottom, var(--oak-tick) 0 1px, transparent 1px 10px) right / 8px
      100% no-repeat,
    repeating-linear-gradient(to bottom, var(--oak-tick) 0 1px, transparent 1px 50px) right / 14px
      100% no-repeat,
    repeating-linear-gradient(to bottom, var(--oak-tick) 0 2px, transparent 2px 100px) right / 22px
      100% no-repeat,
    var(--oak);
  color: var(--oak-text);
  z-index: 20;
  display: flex;
  flex-direction: column;
}

.place {
  height: 100px;
  padding: 0 14px;
  color: inherit;
  text-decoration: none;
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 4px;
}

.place:focus-visible {
  outline-color: var(--oak-text);
  outline-offset: -4px;
}

.here {
  background: var(--linen);
  color: var(--ink);
  border-left: 5px solid var(--brass);
  padding-left: 9px;
}

.title {
  font-weight: 600;
}

.keys {
  margin-top: auto;
  padding: 8px 14px;
  font-size: 12px;
  text-align: left;
}

.keys:focus-visible {
  outline-color: var(--oak-text);
  outline-offset: -4px;
}

.foot {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 12px;
}

.done {
  width: 34px;
  height: 5px;
  background: color-mix(in srgb, currentcolor 28%, transparent);
}

.done span {
  display: block;
  height: 100%;
  background: currentcolor;
}

@media (max-width: 700px) {
  .rule {
    inset: auto 0 0;
    width: auto;
    height: 56px;
    flex-direction: row;
    background:
      repeating-linear-gradient(to right, var(--oak-tick) 0 1px, transparent 1px 10px) top / 100%
        6px no-repeat,
      var(--oak);
  }

  .place {
    flex: 1;
    height: 56px;
    align-items: center;
    padding: 4px;
  }

  .here {
    border-left: 0;
    border-top: 4px solid var(--brass);
    padding-left: 4px;
  }

  .key,
  .keys {
    display: none;
  }
}
</style>
