<script setup lang="ts" generic="T extends string | number | null | undefined">
import { computed, ref, useAttrs, type ComponentPublicInstance } from 'vue'
import type { Choice, Heading } from './choices'
import { useKeysAhead } from './keysAhead'

/** A list to choose from: chosen or left, the hand is on its field again. It acts when another line is
 * chosen, not while it is walked through. Without a label of its own it stands in a line of words, as
 * wide as its widest line. */
const chosen = defineModel<T>({ required: true })
const props = defineProps<{ items: readonly (Choice<T> | Heading)[] }>()
const field = ref<ComponentPublicInstance | null>(null)
const keys = useKeysAhead()
const attrs = useAttrs()

const widest = computed(() => Math.max(...props.items.map(({ title }) => title.length), 0))
/** What is not on the list is nothing chosen. */
const listed = computed(() =>
  props.items.some((line) => 'value' in line && line.value === chosen.value) ? chosen.value : null,
)

/** Where the letters that were typed have led in an open list, until it is closed. */
const walked = ref<{ to: T }>()
let isOpen = false
function choose(value: T) {
  if (isOpen) walked.value = { to: value }
  else settle(value)
}

function settle(value: T) {
  walked.value = undefined
  if (value !== chosen.value) chosen.value = value
}

// Pressed by hand outside of a form, it lets go of the keyboard: the next key is the place's again.
let last: 'hand' | 'keys' = 'keys'
function touched(by: typeof last) {
  last = by
}

const input = () =>
  (field.value?.$el as HTMLElement | undefined)?.querySelector<HTMLElement>(
    'input:not([type=hidden])',
  )
const letsGo = () => last === 'hand' && !input()?.closest('form, [role="dialog"]')

// The list holds the focus until it has left; where the hand went on to another field it stays.
const FRAMES = 30
function turned(opens: boolean) {
  isOpen = opens
  keys.opened(opens)
  if (opens) return
  if (walked.value) settle(walked.value.to as T)
  if (letsGo()) letGo()
  else returned()
}

/** The library gives the focus back while the list leaves: it is let go until that is over. */
function letGo(frames = FRAMES) {
  if (isOpen || !frames) return
  input()?.blur()
  requestAnimationFrame(() => letGo(frames - 1))
}

/** Esc puts back what was there. */
function onListKey(event: KeyboardEvent) {
  if (event.key === 'Escape') walked.value = undefined
}
const menu = {
  contentProps: { onKeydownCapture: onListKey },
  onAfterEnter: keys.entered,
}

function returned(frames = FRAMES) {
  if (isOpen || !frames) return
  const at = document.activeElement
  const isLost = !at || at === document.body
  if (isLost) input()?.focus()
  else if (at.closest('.v-overlay__content .v-list'))
    requestAnimationFrame(() => returned(frames - 1))
}
</script>

<template>
  <v-select
    ref="field"
    :class="{ pick: !attrs.label }"
    :style="{ '--widest': widest }"
    :model-value="walked ? walked.to : listed"
    :items="[...items]"
    :menu-props="menu"
    @mousedown="touched('hand')"
    @keydown="touched('keys')"
    @update:model-value="choose"
    @update:menu="turned($event)"
  />
</template>

<style scoped>
.pick {
  width: calc(var(--widest) * 0.52em + 44px);
  min-width: 72px;
  max-width: 100%;
  font-size: 14px;
}

.pick :deep(.v-field) {
  --v-field-padding-start: 5px;
  --v-field-padding-end: 1px;
}

.pick :deep(.v-select__menu-icon) {
  margin-inline-start: 0;
  font-size: var(--pick-caret, 20px);
}

.pick :deep(.v-field__input > input) {
  align-self: center;
}

.pick :deep(.v-select__selection) {
  white-space: nowrap;
}

.figure :deep(.v-field) {
  font-family: var(--figures);
}
</style>
