<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { Lot, NewLot } from '../api/client'
import PickList from '../shared/PickList.vue'
import { titled } from '../shared/choices'
import { once } from '../shared/once'
import { sent } from '../shared/sent'
import { useUnits } from '../shared/units'
import { understand, whyNot } from '../shared/useQuantity'
import { FACES, KINDS } from '../shared/useRack'

/** A lot that is not on the rack yet: its name, what it is and how heavy, about. */
const props = defineProps<{ hang: (lot: NewLot) => Promise<boolean> }>()
const emit = defineEmits<{ hung: [] }>()

const { rate, perUnit } = useUnits()

const fresh = reactive({ name: '', kind: 'foam' as Lot['kind'], constant: '', faces: 'both' })
const wrong = ref('')
/** A figure to go by: a board, a bead, a stick. */
const USUAL = { dm2: 4.6, m: 2, piece: 5 }
const unit = computed(() => KINDS.find((each) => each.value === fresh.kind)?.unit ?? 'piece')

const add = once(async () => {
  wrong.value = ''
  try {
    const anew = sent(fresh)
    if (!fresh.name.trim()) throw new Error('Name: like the shop and the day it was bought')
    const { kind, unit: each } = rate(unit.value)
    const constant = await understand(fresh.constant, kind, each)
    const hung = await props.hang({
      name: fresh.name.trim(),
      kind: fresh.kind,
      unit: unit.value,
      constant,
      source: 'typed',
      faces: fresh.kind === 'foam' ? (fresh.faces as 'both') : null,
    })
    if (!hung) return
    anew({ name: '', constant: '' })
    emit('hung')
  } catch (error) {
    wrong.value = whyNot(error)
  }
})
</script>

<template>
  <form class="next" @submit.prevent="add">
    <v-text-field
      v-model="fresh.name"
      class="entry"
      aria-label="Name of the next lot"
      placeholder="a lot not on the rack"
      maxlength="80"
    />
    <PickList v-model="fresh.kind" :items="KINDS" aria-label="What it is" />
    <PickList
      v-if="fresh.kind === 'foam'"
      v-model="fresh.faces"
      :items="titled(FACES)"
      aria-label="Faces"
    />
    <span>
      <v-text-field
        v-model="fresh.constant"
        class="entry figure few"
        :aria-label="`How heavy, ${rate(unit).name}`"
        inputmode="decimal"
        :placeholder="perUnit(USUAL[unit], unit)"
      />
      <span class="faint small">{{ rate(unit).name }}</span>
    </span>
    <v-verb type="submit">hang it up <kbd>Enter</kbd></v-verb>
  </form>
  <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
</template>

<style scoped>
.next {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}

.next > .entry:first-child {
  flex: 1;
  min-width: 180px;
}

.few {
  width: 70px;
  margin-right: 6px;
}
</style>
