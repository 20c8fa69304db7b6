<script setup lang="ts">
import { computed } from 'vue'
import type { Part } from '../api/client'
import PickList from '../shared/PickList.vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'
import { NO_FIT, type Bay, type Fit } from './useFit'

/** What one part takes up: its size, the bay it sits in, its lead, what it must keep away from. */
const props = defineProps<{
  part: Part
  bays: Bay[]
  parts: Part[]
  room?: string | undefined
  reach?: string | undefined
  /** Told also where the place was left before a figure was read. */
  onFit: (patch: Partial<Fit> | null) => void
}>()
const { units } = useUnits()

const SIZES = [
  { key: 'length_mm', title: 'along' },
  { key: 'width_mm', title: 'across' },
  { key: 'height_mm', title: 'up' },
] as const
const ROLES: { value: Fit['role']; title: string }[] = [
  { value: null, title: 'plain' },
  { value: 'receiver', title: 'a receiver' },
  { value: 'transmitter', title: 'it transmits' },
  { value: 'propeller', title: 'a propeller' },
]
const fit = computed(() => props.part.fit ?? NO_FIT)
const bayChoices = computed(() => [
  { value: null, title: 'in no bay' },
  ...props.bays.map(({ id, name }) => ({ value: id, title: name })),
])
const others = computed(() => [
  { value: null, title: 'into nothing' },
  ...props.parts
    .filter((each) => each.id !== props.part.id)
    .map(({ id, name }) => ({ value: id, title: name })),
])
</script>

<template>
  <li>
    <div class="head">
      <strong>{{ part.name }}</strong>
      <span v-if="room" class="small faint">{{ room }}</span>
      <v-verb
        class="bare faint"
        :aria-label="`Forget what ${part.name} takes up`"
        @click="onFit(null)"
      >
        ✕
      </v-verb>
    </div>
    <div class="line small">
      <template v-for="size in SIZES" :key="size.key">
        <QuantityCell
          :value="fit[size.key]"
          kind="length"
          optional
          :label="`${part.name}, ${size.title}`"
          :unit="units.length.name"
          :base="units.length.base"
          @kept="onFit({ [size.key]: $event })"
        />
        <span class="faint">{{ size.title }}</span>
      </template>
      <PickList
        :model-value="fit.bay"
        :items="bayChoices"
        :aria-label="`${part.name} sits in`"
        @update:model-value="onFit({ bay: $event })"
      />
      <PickList
        :model-value="fit.role"
        :items="ROLES"
        :aria-label="`What ${part.name} is`"
        @update:model-value="onFit({ role: $event })"
      />
    </div>
    <div class="line into small">
      <span class="faint">its lead</span>
      <QuantityCell
        :value="fit.lead_mm"
        kind="length"
        optional
        :label="`${part.name}, lead`"
        :unit="units.length.name"
        :base="units.length.base"
        @kept="onFit({ lead_mm: $event })"
      />
      <PickList
        :model-value="fit.plugs_into"
        :items="others"
        :aria-label="`${part.name} plugs into`"
        @update:model-value="onFit({ plugs_into: $event })"
      />
      <span v-if="reach">{{ reach }}</span>
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

.head,
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
}

.head button {
  margin-left: auto;
  min-width: 28px;
  min-height: 28px;
}

.line :deep(.cell) {
  width: 64px;
}

.line > :deep(.v-input) {
  flex: 0 1 140px;
}

.into > :deep(.v-input) {
  flex-basis: 250px;
}

.line :deep(.v-field) {
  font-size: 14px;
}
</style>
