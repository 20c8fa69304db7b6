<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import type { useQuantity } from '../shared/useQuantity'
import { useUnits } from '../shared/units'
import { useBench } from './useBench'

/** What is typed is looked at by the pan as well: it is the reading that may come. */
const props = defineProps<{ typed: ReturnType<typeof useQuantity>; digits: number }>()

const bench = useBench()
const { units, quantity } = useUnits()
const field = ref<HTMLInputElement>()

/** A key pressed anywhere on the Bench begins a reading. */
function type(key: string) {
  field.value?.focus()
  void props.typed.typed(props.typed.text.value + key)
}

/** The server that keeps it understands it: nothing else has to answer before it is safe. */
async function submit() {
  const text = props.typed.text.value.trim()
  if (!/\d/.test(text) || props.typed.refused.value) return
  if (bench.recordTyped(text, units.value.mass.name)) {
    props.typed.clear()
    await nextTick()
    field.value?.blur()
  }
}

/** What was refused is in the hand again, unless that types something else by now. */
watch(bench.unread, (text) => {
  if (!text || props.typed.text.value) return
  void props.typed.typed(text)
  if (document.activeElement === document.body) field.value?.focus()
})

function leave() {
  props.typed.clear()
  field.value?.blur()
}

defineExpose({ type })
</script>

<template>
  <form class="typed" @submit.prevent="submit">
    <label for="typed">or type a reading</label>
    <input
      id="typed"
      ref="field"
      :value="typed.text.value"
      class="figure"
      inputmode="decimal"
      autocomplete="off"
      enterkeyhint="done"
      :placeholder="units.mass.name === 'g' ? '12.4, 0.44 oz' : '0.44, 12.4 g'"
      @input="typed.typed(($event.target as HTMLInputElement).value)"
      @keydown.esc.stop="leave"
    />
    <button type="submit" class="enter"><kbd>Enter</kbd></button>
  </form>
  <p v-if="typed.wrong.value" class="wrong small" role="alert">{{ typed.wrong.value }}</p>
  <p v-else-if="typed.text.value.trim() && typed.value.value !== undefined" class="small">
    understood as
    <span class="figure">{{ quantity(typed.value.value, 'mass', Math.max(digits, 2)) }}</span>;
    Enter records it
  </p>
</template>

<style scoped>
.typed {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-top: 10px;
  font-size: 13px;
  color: var(--faint);
}

.typed input {
  flex: 1;
  min-width: 0;
  height: 36px;
  padding: 0 8px;
  font-size: 16px;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line);
}

.enter {
  background: none;
  border: 0;
  color: var(--ink);
  cursor: pointer;
  padding: 8px 0;
}

.enter kbd {
  margin: 0;
}

.small {
  font-size: 13px;
  margin-top: 4px;
}
</style>
