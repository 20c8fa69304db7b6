<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import type { Kind, Measure, Understood } from '../api/client'
import { keptInTurn } from './figures'
import { decimal, plainly } from './units'
import { understood, whyNot } from './useQuantity'

const props = defineProps<{
  /** In the base unit of its kind; null while there is none. */
  value: number | null
  kind: Kind
  label: string
  /** The unit that is meant where none is typed, and its size in the base unit. */
  unit?: string
  base?: number
  digits?: number
  /** Whether emptying the cell takes the figure away. */
  optional?: boolean
  /** The ends of what it may be, in the base unit; beyond them it is not kept, and said. */
  least?: number
  most?: number
  /** What the figure is of, and on which build: an absurd one is asked about once, here. */
  measure?: Measure
  build?: string | undefined
  /** What becomes of what is typed, and of what is kept. They are told also where the place was left
   * before the workshop had read the figure: an event of a cell that is gone would not be. */
  onTyped?: (value: number | null) => void
  onKept?: (value: number | null) => void
}>()

const text = ref<string | null>(null)
const wrong = ref('')
let latest: { asks: string; told: Promise<Understood> } | undefined
let doubted: Understood['asked'] = null
/** What stood there when the hand came: that is never asked about. */
let before: number | null = null

const shown = computed(() => {
  if (text.value !== null) return text.value
  if (props.value === null) return ''
  return decimal(String(+(props.value / (props.base ?? 1)).toFixed(props.digits ?? 2)))
})

/** A figure that is absurd for what it is of, until the builder says which was meant. */
const asked = ref<Understood['asked']>(null)
const question = ref<HTMLElement>()
const field = ref<HTMLInputElement>()

async function read(given: string): Promise<number | null | undefined> {
  text.value = given
  wrong.value = ''
  doubted = null
  if (!given.trim() && props.optional) return null
  try {
    const of = props.measure ? { measure: props.measure, build: props.build } : undefined
    // What was understood while it was typed is not asked again when it is kept.
    const asks = [given, props.kind, props.unit, props.measure].join()
    if (latest?.asks !== asks)
      latest = { asks, told: understood(given, props.kind, props.unit, of) }
    const all = await latest.told
    doubted = all.asked
    const told = all.value
    const { least = -Infinity, most = Infinity, base = 1, unit = '' } = props
    if (told >= least && told <= most) return told
    const [low, high] = [least, most].map((end) => plainly(end / base))
    if (text.value === given) wrong.value = `${props.label}: ${low} to ${high} ${unit}`.trim()
    return undefined
  } catch (error) {
    latest = undefined
    if (text.value === given) wrong.value = whyNot(error)
    return undefined
  }
}

function came() {
  before = props.value
}

async function typed(event: Event) {
  const told = await read((event.target as HTMLInputElement).value)
  if (told !== undefined) props.onTyped?.(told)
}

function kept(event: Event) {
  keptInTurn(read((event.target as HTMLInputElement).value), keep)
}

async function keep(told: number | null | undefined) {
  if (told === undefined) return
  // Where the place was left there is nobody to ask: it is kept as it was typed.
  if (doubted && told !== before && field.value) {
    asked.value = doubted
    await nextTick()
    question.value?.querySelector('button')?.focus()
    return
  }
  settle(told)
}

function settle(told: number | null) {
  asked.value = null
  text.value = null
  props.onKept?.(told)
}

const inUnit = (figure: number) =>
  decimal(`${+(figure / (props.base ?? 1)).toFixed(2)} ${props.unit ?? ''}`)

/** Esc on the question puts back what was there, where it was shown already too. */
function neither() {
  asked.value = null
  text.value = null
  props.onTyped?.(before)
}

/** Enter keeps, and the hand is free: what is pressed next is no part of this figure. */
function letGo(event: KeyboardEvent) {
  ;(event.target as HTMLInputElement).blur()
}

/** Esc puts back what was there. */
function putBack(event: KeyboardEvent) {
  const field = event.target as HTMLInputElement
  text.value = null
  wrong.value = ''
  field.value = shown.value
  props.onTyped?.(props.value)
  field.blur()
}
</script>

<template>
  <span class="cell">
    <input
      ref="field"
      class="entry figure"
      :value="shown"
      :aria-label="label"
      :aria-invalid="wrong !== ''"
      inputmode="decimal"
      autocomplete="off"
      @focus="came"
      @input="typed"
      @change="kept"
      @keydown.enter.prevent="letGo"
      @keydown.esc.stop="putBack"
    />
    <small v-if="wrong" class="wrong" role="alert">{{ wrong }}</small>
    <small
      v-if="asked"
      ref="question"
      class="asked"
      role="alertdialog"
      :aria-label="`Is that meant for ${label}?`"
      @keydown.esc.stop="neither"
    >
      is that meant?
      <v-verb v-if="asked.instead !== null" @click="settle(asked.instead)">
        {{ inUnit(asked.instead) }}
      </v-verb>
      <v-verb @click="settle(asked.value)"> {{ inUnit(asked.value) }}, as typed </v-verb>
    </small>
  </span>
</template>

<style scoped>
.cell {
  display: inline-block;
  position: relative;
}

input {
  width: 100%;
  min-width: 52px;
  border: 1px solid var(--line);
  text-align: right;
}

input[aria-invalid='true'] {
  border-color: var(--rust);
}

small {
  position: absolute;
  z-index: 5;
  top: 100%;
  right: 0;
  width: max-content;
  max-width: 280px;
  background: var(--rust-wash);
  color: var(--ink);
  padding: 4px 8px;
  border: 1px solid var(--rust);
}

.asked {
  display: flex;
  gap: 12px;
  background: var(--paper);
  border-color: var(--ink);
}

.asked button {
  min-height: 24px;
}
</style>
