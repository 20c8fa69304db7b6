<script setup lang="ts">
import { ref, watch } from 'vue'
import { answered, api, type Opened, type Shifted } from '../api/client'
import { useRemedyWords } from '../say/remedies'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { whyNot } from '../shared/useQuantity'
import { useUnits } from '../shared/units'

/** Several moves asked as one, in the builder's own words. */
const { id, build, send, nameOf } = useBuild()
const { units, number, example } = useUnits()
const { outcome, saves } = useRemedyWords()

const line = ref('')
const told = ref<Shifted>()
const refused = ref('')
watch(build, () => (told.value = undefined))

const body = () => ({ line: line.value, unit: units.value.length.name })
async function ask() {
  refused.value = ''
  told.value = undefined
  try {
    told.value = await answered<Shifted>(
      api.POST('/api/v1/builds/{build_id}/remedies/shifted', {
        params: { path: { build_id: id.value } },
        body: body(),
      }),
    )
  } catch (error) {
    refused.value = whyNot(error)
  }
}

const keep = once(async () => {
  const typed = line.value
  const kept = await send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/remedies/shifted/kept', {
        params: { path: { build_id: id.value }, header },
        body: body(),
      }),
    ),
  )
  if (kept && line.value === typed) line.value = ''
})

function shift(each: Shifted['shifts'][number]): string {
  const name = nameOf(each.part)
  if (each.to_mm !== null) return `${name} to ${number(each.to_mm, 'length')}`
  const by = each.by_mm ?? 0
  return `${name} ${number(Math.abs(by), 'length')} ${by < 0 ? 'forward' : 'aft'}`
}
</script>

<template>
  <form class="several" @submit.prevent="ask">
    <label
      >What would it save to move
      <v-text-field
        v-model="line"
        class="entry"
        aria-label="Several moves as one"
        :placeholder="`pack and servos both ${example(15, 'length')} forward; receiver to ${example(210, 'length')}`"
        autocomplete="off"
        maxlength="300"
    /></label>
    <v-verb type="submit">work it out</v-verb>
    <div v-if="told" role="status">
      <p class="faint">{{ told.shifts.map(shift).join('; ') }}, in {{ units.length.name }}:</p>
      <ul>
        <li v-for="each in told.loadouts" :key="each.loadout">
          {{ each.name }}:
          <span class="figure"
            >{{ each.now_mm === null ? '–' : number(each.now_mm, 'length') }} →
            {{ each.then_mm === null ? '–' : number(each.then_mm, 'length') }}</span
          >
          {{ units.length.name }}
        </li>
      </ul>
      <p>
        <strong v-if="told.saves_g !== null">{{ saves(told.saves_g) }}</strong>
        {{ outcome(told.then) }}
      </p>
      <v-verb @click="keep">move them so</v-verb>
    </div>
    <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
  </form>
</template>

<style scoped>
.several {
  display: grid;
  gap: 6px;
  justify-items: start;
}

.several label,
.several .entry {
  width: 100%;
}

ul {
  margin: 4px 0;
  padding-left: 18px;
  list-style: disc;
}
</style>
