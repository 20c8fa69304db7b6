<script setup lang="ts">
import { ref } from 'vue'

/** A plain field that keeps what is being typed whatever is drawn anew around it. */
const props = defineProps<{ value: string; label: string; placeholder?: string; most?: number }>()
const emit = defineEmits<{ kept: [value: string] }>()

const text = ref<string | null>(null)
function kept() {
  const typed = text.value
  text.value = null
  if (typed !== null) emit('kept', typed)
}

function putBack(event: KeyboardEvent) {
  const field = event.target as HTMLInputElement
  text.value = null
  field.value = props.value
  field.blur()
}
</script>

<template>
  <input
    class="entry"
    :value="text ?? value"
    :aria-label="label"
    :placeholder="placeholder ?? ''"
    :maxlength="most ?? 80"
    @input="text = ($event.target as HTMLInputElement).value"
    @change="kept"
    @keydown.enter.prevent="($event.target as HTMLInputElement).blur()"
    @keydown.esc.stop="putBack"
  />
</template>
