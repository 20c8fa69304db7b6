<script setup lang="ts">
import { reactive, ref } from 'vue'
import { once } from '../shared/once'
import { sent } from '../shared/sent'
import { understand, whyNot } from '../shared/useQuantity'
import { useUnits } from '../shared/units'
import type { Listed } from './useChoices'
import PickList from '../shared/PickList.vue'
import { titled } from '../shared/choices'

const TRIED = titled({ pack: 'a pack', motor: 'a motor' })

const emit = defineEmits<{ listed: [listed: Listed] }>()
const { units } = useUnits()

const kind = ref<'pack' | 'motor'>('pack')
const typed = reactive({ name: '', mass: '', cells: '', held: '', c: '', kv: '', most: '' })
const wrong = ref('')

async function figure(what: string, text: string, of: 'number' | 'mass' = 'number') {
  try {
    return await understand(text, of, of === 'mass' ? units.value.mass.name : undefined)
  } catch (error) {
    throw new Error(`${what}: ${whyNot(error)}`)
  }
}
const maybe = (what: string, text: string) =>
  text.trim() ? figure(what, text) : Promise.resolve(null)

const add = once(async () => {
  wrong.value = ''
  const anew = sent(typed)
  try {
    const name = typed.name.trim()
    if (!name) throw new Error('Name: what is it called')
    const mass_g = await figure('Mass', typed.mass, 'mass')
    if (kind.value === 'pack') {
      emit('listed', {
        kind: 'pack',
        listing: {
          name,
          mass_g,
          cells: Math.round(await figure('Cells', typed.cells)),
          capacity_mah: await figure('Capacity', typed.held),
          c_rating: await maybe('C rating', typed.c),
        },
      })
    } else {
      emit('listed', {
        kind: 'motor',
        listing: {
          name,
          mass_g,
          kv: await figure('Kv', typed.kv),
          most_a: await maybe('Stands', typed.most),
        },
      })
    }
    anew({ name: '', mass: '', cells: '', held: '', c: '', kv: '', most: '' })
  } catch (error) {
    wrong.value = whyNot(error)
  }
})
</script>

<template>
  <form @submit.prevent="add">
    <PickList v-model="kind" :items="TRIED" label="Try" hide-details />
    <v-text-field v-model="typed.name" label="Called" maxlength="80" hide-details />
    <template v-if="kind === 'pack'">
      <v-text-field v-model="typed.cells" label="Cells" inputmode="decimal" hide-details />
      <v-text-field v-model="typed.held" label="mAh" inputmode="decimal" hide-details />
      <v-text-field v-model="typed.c" label="C" inputmode="decimal" hide-details />
    </template>
    <template v-else>
      <v-text-field v-model="typed.kv" label="Kv" inputmode="decimal" hide-details />
      <v-text-field v-model="typed.most" label="Stands, A" inputmode="decimal" hide-details />
    </template>
    <v-text-field
      v-model="typed.mass"
      :label="`Listed, ${units.mass.name}`"
      inputmode="decimal"
      hide-details
    />
    <v-btn type="submit">Try it</v-btn>
    <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1.1fr 1.8fr repeat(auto-fit, minmax(72px, 1fr));
  gap: 8px;
  align-items: center;
}

p {
  grid-column: 1 / -1;
}

@media (max-width: 700px) {
  form {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
