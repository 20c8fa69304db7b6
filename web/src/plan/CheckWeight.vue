<script setup lang="ts">
import { once } from '../shared/once'
import { fixed, useUnits } from '../shared/units'
import { computed, ref } from 'vue'
import type { Build } from '../api/client'
import { freshId } from '../shared/freshId'
import { useBuild } from '../shared/useBuild'
import { useOutbox } from '../shared/useOutbox'
import { understand, whyNot } from '../shared/useQuantity'
import { useWords } from '../shared/useWords'

const props = defineProps<{ scale: Build['scales'][number] }>()
const { id, assessment, keepReading } = useBuild()
const words = useWords()
const { units } = useUnits()
const known = ref('')
const shown = ref('')
const wrong = ref('')

/** How far the scale reads off by now, in words. */
const error = computed(() => {
  const told = assessment.value?.scales.find((each) => each.id === props.scale.id)
  if (!told) return ''
  const off = 100 * told.error
  const doubt = fixed(200 * told.sd, 2)
  if (told.is_true) return `true within ±${doubt} %`
  return `reads ${fixed(Math.abs(off), 2)} % ${off > 0 ? 'high' : 'low'}, ±${doubt}`
})

const outbox = useOutbox(id, keepReading, (error) => words.complain(error))

const record = once(async () => {
  wrong.value = ''
  const typed = shown.value
  try {
    const unit = units.value.mass.name
    const pan = { loads: [], samples: [], known_g: await understand(known.value, 'mass', unit) }
    const reading_g = await understand(typed, 'mass', unit)
    const at = new Date().toISOString()
    outbox.post(
      { id: freshId(), at, scale: props.scale.id, reading_g, pan, typed },
      Promise.resolve(),
    )
    if (shown.value === typed) shown.value = ''
  } catch (failed) {
    wrong.value = whyNot(failed)
  }
})
</script>

<template>
  <form class="check small" @submit.prevent="record">
    <span class="faint">{{ error }}; a weight of</span>
    <v-text-field
      v-model="known"
      class="entry figure"
      :aria-label="`Check weight on ${scale.name}`"
      inputmode="decimal"
      :placeholder="units.mass.name === 'g' ? '100' : '4'"
    />
    <span class="faint">{{ units.mass.name }} shows</span>
    <v-text-field
      v-model="shown"
      class="entry figure"
      :aria-label="`${scale.name} shows`"
      inputmode="decimal"
    />
    <v-verb type="submit">check</v-verb>
    <span v-if="wrong" class="wrong" role="alert">{{ wrong }}</span>
  </form>
</template>

<style scoped>
.check {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  padding: 0 0 8px;
}

.entry {
  flex: none;
  width: 72px;
}
</style>
