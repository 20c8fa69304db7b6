<script setup lang="ts" generic="T">
import { ref, type ComponentPublicInstance } from 'vue'
import { useKeysAhead } from './keysAhead'

/** A list to choose from: chosen or left, the hand is on its field again. */
const chosen = defineModel<T>({ required: true })
const field = ref<ComponentPublicInstance | null>(null)
const keys = useKeysAhead()

// The list holds the focus until it has left; where the hand went on to another field it stays.
const FRAMES = 60
function turned(isOpen: boolean) {
  keys.opened(isOpen)
  returned(isOpen)
}

function returned(isOpen: boolean, frames = FRAMES) {
  if (isOpen || !frames) return
  const at = document.activeElement
  const isLost = !at || at === document.body
  if (isLost)
    (field.value?.$el as HTMLElement | undefined)
      ?.querySelector<HTMLElement>('input:not([type=hidden])')
      ?.focus()
  else if (at.closest('.v-overlay__content .v-list'))
    requestAnimationFrame(() => returned(false, frames - 1))
}
</script>

<template>
  <v-select
    ref="field"
    v-model="chosen"
    :menu-props="{ onAfterEnter: keys.entered }"
    @update:menu="turned($event)"
  />
</template>
