<script setup lang="ts">
import { reactive, useTemplateRef } from 'vue'
import type { NewThing } from '../api/client'
import PickList from '../shared/PickList.vue'
import { once } from '../shared/once'
import { sent } from '../shared/sent'
import { useUnits } from '../shared/units'
import { understand, whyNot } from '../shared/useQuantity'
import { THINGS, useDrawer } from './useDrawer'

/** The last row of the drawer: one more thing. */
const wrong = defineModel<string>('wrong', { required: true })

const { lay } = useDrawer()
const { units } = useUnits()

const fresh = reactive({
  name: '',
  kind: 'motor' as NewThing['kind'],
  listing: '',
  leads: true,
  price: '',
})
const name = useTemplateRef<Pick<HTMLElement, 'focus'>>('name')

/** Enter lays it in the drawer; on a list it opens it. */
function onEnter(event: KeyboardEvent) {
  if (event.defaultPrevented) return
  event.preventDefault()
  void add()
}

const add = once(async () => {
  wrong.value = ''
  try {
    const anew = sent(fresh)
    if (!fresh.name.trim()) throw new Error('Name: what is it')
    const done = await lay({
      name: fresh.name.trim(),
      kind: fresh.kind,
      listing_g: await understand(fresh.listing, 'mass', units.value.mass.name),
      leads_included: fresh.leads,
      price: fresh.price.trim() ? await understand(fresh.price, 'number') : null,
      note: '',
    })
    if (!done) return
    anew({ name: '', listing: '', price: '' })
    if (!fresh.name) name.value?.focus()
  } catch (error) {
    wrong.value = whyNot(error)
  }
})
</script>

<template>
  <tr @keydown.enter="onEnter">
    <td>
      <v-text-field
        ref="name"
        v-model="fresh.name"
        class="entry"
        aria-label="Name of the next thing"
        placeholder="next thing"
        maxlength="80"
      />
    </td>
    <td>
      <PickList v-model="fresh.kind" :items="THINGS" aria-label="What it is" />
    </td>
    <td>
      <v-text-field
        v-model="fresh.listing"
        class="entry figure few"
        inputmode="decimal"
        aria-label="Its listing"
      />
    </td>
    <td>
      <v-checkbox-btn v-model="fresh.leads" aria-label="The listing counts its leads" />
    </td>
    <td />
    <td>
      <v-text-field
        v-model="fresh.price"
        class="entry figure few"
        inputmode="decimal"
        aria-label="Its price"
      />
    </td>
    <td colspan="2">
      <v-verb @click="add"> into the drawer <kbd>Enter</kbd> </v-verb>
    </td>
  </tr>
</template>

<style scoped>
.few {
  width: 74px;
}
</style>
