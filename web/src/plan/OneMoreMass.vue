<script setup lang="ts">
import { nextTick, ref, useTemplateRef, type ComponentPublicInstance } from 'vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'

/** One more of a list that is nothing before its figure is said: the verb opens a field for that. */
defineProps<{ words: string; label: string; says: string }>()
const emit = defineEmits<{ said: [grams: number] }>()
const { units } = useUnits()

const open = ref(false)
const room = useTemplateRef('room')
const verb = useTemplateRef<ComponentPublicInstance>('verb')

async function ask() {
  open.value = true
  await nextTick()
  room.value?.querySelector('input')?.focus()
}

/** Left with nothing typed, nothing was meant: by Esc the hand is back on the verb. */
async function left(event: FocusEvent) {
  if ((event.target as HTMLInputElement).value.trim()) return
  open.value = false
  await nextTick()
  if (!event.relatedTarget) (verb.value?.$el as HTMLElement | undefined)?.focus()
}

function kept(grams: number | null) {
  open.value = false
  if (grams !== null) emit('said', grams)
}
</script>

<template>
  <span v-if="open" ref="room" class="small room" @focusout="left">
    {{ says }}
    <QuantityCell
      :value="null"
      kind="mass"
      :label="label"
      :unit="units.mass.name"
      :base="units.mass.base"
      :digits="4"
      optional
      @kept="kept"
    />
    {{ units.mass.name }}
  </span>
  <v-verb v-else ref="verb" class="small" @click="ask">{{ words }}</v-verb>
</template>

<style scoped>
.room {
  display: inline-flex;
  gap: 10px;
  padding: 6px 0;
  align-items: center;
}

.room :deep(.cell) {
  width: 72px;
}
</style>
