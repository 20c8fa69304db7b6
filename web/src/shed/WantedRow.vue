<script setup lang="ts">
import { computed } from 'vue'
import type { Wanted } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'

/** One thing on the list: how many, where it is had and for how much, or that it is there. */
/** What is made of it is told also where the place was left before a figure was read. */
const props = defineProps<{
  wanted: Wanted
  onChange: (made: (now: Wanted) => Partial<Wanted>) => void
}>()
const emit = defineEmits<{ strike: [] }>()

type Offer = Wanted['offers'][number]
const NONE: Offer = { shop: '', price: 0, lead_days: null }
/** What is offered, and an empty line for one more. */
const offers = computed(() => [...props.wanted.offers, NONE])

function offered(at: number, patch: Partial<Offer>) {
  props.onChange(({ offers: now }) => {
    const next = [...now]
    next[at] = { ...(next[at] ?? NONE), ...patch }
    return { offers: next }
  })
}
function withdraw(at: number) {
  props.onChange(({ offers: now }) => ({ offers: now.filter((_, k) => k !== at) }))
}
</script>

<template>
  <li :class="{ had: wanted.is_had }">
    <div class="what">
      <v-checkbox-btn
        :model-value="wanted.is_had"
        :aria-label="`${wanted.name} is there`"
        @update:model-value="(isHad: boolean) => onChange(() => ({ is_had: isHad }))"
      />
      <QuantityCell
        :value="wanted.count"
        kind="pieces"
        :least="1"
        :most="10000"
        :label="`How many of ${wanted.name}`"
        :on-kept="(value) => value && onChange(() => ({ count: Math.round(value) }))"
      />
      <TextCell
        class="name"
        :value="wanted.name"
        :label="`Name of ${wanted.name}`"
        @kept="(name: string) => name && onChange(() => ({ name }))"
      />
      <v-verb
        class="bare faint"
        :aria-label="`Take ${wanted.name} off the list`"
        @click="emit('strike')"
      >
        ✕
      </v-verb>
    </div>
    <div v-for="(offer, at) in offers" :key="at" class="offer small">
      <span class="faint">{{ at === wanted.offers.length ? 'had at' : 'at' }}</span>
      <TextCell
        class="shop"
        :value="offer.shop"
        :label="`${wanted.name}, shop ${at + 1}`"
        @kept="offered(at, { shop: $event })"
      />
      <template v-if="at < wanted.offers.length">
        <span class="faint">for</span>
        <QuantityCell
          :value="offer.price"
          kind="number"
          :least="0"
          :label="`${wanted.name}, price ${at + 1}`"
          @kept="$event !== null && offered(at, { price: $event })"
        />
        <span class="faint">each, in</span>
        <QuantityCell
          :value="offer.lead_days"
          kind="number"
          optional
          :least="0"
          :most="365"
          :label="`${wanted.name}, days ${at + 1}`"
          @kept="offered(at, { lead_days: $event })"
        />
        <span class="faint">days</span>
        <v-verb
          class="bare faint"
          :aria-label="`Forget ${offer.shop} for ${wanted.name}`"
          @click="withdraw(at)"
        >
          ✕
        </v-verb>
      </template>
    </div>
  </li>
</template>

<style scoped>
li {
  display: grid;
  gap: 6px;
  border-bottom: 1px solid var(--line);
  padding: 10px 0;
}

.what,
.offer {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}

.what :deep(.cell) {
  width: 60px;
}

.what .name {
  flex: 1 1 160px;
  min-width: 0;
  font-weight: 650;
}

.offer {
  padding-left: 48px;
}

.offer .shop {
  width: 130px;
}

.offer :deep(.cell) {
  width: 70px;
}

button {
  min-width: 28px;
  min-height: 28px;
}

.had .name {
  text-decoration: line-through;
}

@media (max-width: 600px) {
  .offer {
    padding-left: 0;
  }
}
</style>
