<script setup lang="ts">
import { howMany } from '../say/counts'
import { computed } from 'vue'
import { useBalanceWords } from '../say/balance'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import { useTrial } from './useTrial'

/** Which way it tips and by how much, and what is tried and not kept. */
defineProps<{ masses: number }>()
const { checked } = useBalanceWords()
const { loadout, balanced } = useBuild()
const { quantity, exactness } = useUnits()
const { tried, keep, drop } = useTrial()

const isOff = computed(() => balanced.value?.heavy?.endsWith('heavy'))
const headline = computed(() => {
  const told = balanced.value
  if (!told?.heavy || !loadout.value?.cg) return 'Where it balances'
  if (told.heavy === 'in its range') return 'Balanced: in its range'
  const far = quantity(
    Math.abs(told.off_mm),
    'length',
    exactness(Math.abs(told.off_mm) / 2, 'length'),
  )
  const [way, side] = told.heavy === 'tail-heavy' ? ['Tail-heavy', 'aft'] : ['Nose-heavy', 'ahead']
  return `${way}: ${far} ${side} of its range`
})
</script>

<template>
  <div class="head">
    <div>
      <h2 :class="{ wrong: isOff }" aria-live="polite">{{ headline }}</h2>
      <p class="faint small">
        {{ loadout?.name }}; sum of {{ howMany(masses, 'mass', 'masses') }};
        {{ balanced ? checked(balanced.checked) : '' }}
      </p>
    </div>
    <p v-if="tried" class="trial small" role="status">
      tried, not kept
      <v-verb @click="keep">keep <kbd>Enter</kbd></v-verb>
      <v-verb @click="drop">drop <kbd>Esc</kbd></v-verb>
    </p>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  gap: 18px;
}

.trial {
  border-left: 4px solid var(--sea);
  background: var(--sea-wash);
  padding: 5px 10px;
  display: flex;
  gap: 10px;
  align-items: center;
  align-self: start;
}
</style>
