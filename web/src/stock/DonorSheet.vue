<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'
import { answered, api, type DonorPart, type Group, type Opened } from '../api/client'
import { once } from '../shared/once'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { whyNot } from '../shared/useQuantity'
import { vFirst } from '../shared/vFirst'

/** A donor's weights from a scrap of cardboard: the first budget, and no plane made of it. */
const props = defineProps<{ groups: { value: Group; title: string }[] }>()
const emit = defineEmits<{ kept: [] }>()
const { id, send } = useBuild()
const { quantity, units, example } = useUnits()
const grams = (g: number) => `${example(g, 'mass')} ${units.value.mass.name}`

const name = ref('the donor')
const lines = ref('')
const donor = computed(() => ({
  name: name.value.trim() || 'the donor',
  lines: lines.value,
  unit: units.value.mass.name,
}))
const settled = refDebounced(donor, 250)
const read = useQuery({
  queryKey: computed(() => ['donor', settled.value]),
  queryFn: () => answered<DonorPart[]>(api.POST('/api/v1/donor', { body: settled.value })),
  enabled: computed(() => !!settled.value.lines.trim()),
  placeholderData: (before) => before,
  retry: false,
})
const wrong = computed(() => (read.error.value ? whyNot(read.error.value, called) : ''))
/** A field of the workshop as the sheet calls it: ``lines.3`` is its third line. */
const called = (field: string) => field.replace(/^lines\.(\d+)$/, 'Line $1')
const told = computed(() => {
  const parts = read.data.value ?? []
  return props.groups
    .map(({ value, title }) => {
      const own = parts.filter((part) => part.group === value)
      return { title, own, grams: own.reduce((sum, part) => sum + part.grams, 0) }
    })
    .filter(({ own }) => own.length)
})
const unsorted = computed(() => (read.data.value ?? []).filter((part) => !part.is_sorted))

const keep = once(async () => {
  const kept = await send(
    (header) =>
      answered<Opened>(
        api.PUT('/api/v1/builds/{build_id}/budget/donor', {
          params: { path: { build_id: id.value }, header },
          body: donor.value,
        }),
      ),
    called,
  )
  if (kept) emit('kept')
})
</script>

<template>
  <form class="donor" aria-label="A donor’s weights" @submit.prevent="keep">
    <div class="typed">
      <v-text-field v-model="name" label="what it was" maxlength="80" />
      <v-textarea
        v-model="lines"
        v-first
        label="its parts, one on each line"
        :placeholder="`Left wing ${grams(92)}\nMotor ${grams(28)}\nServos 2 x ${grams(9)}`"
        rows="7"
        :error-messages="wrong || undefined"
      />
      <v-btn class="press--main" type="submit" :disabled="!lines.trim() || !!wrong"
        >Take it as the budget</v-btn
      >
    </div>
    <dl v-if="told.length" aria-label="As it was understood">
      <template v-for="each in told" :key="each.title">
        <dt>
          {{ each.title }}
          <span class="faint small">{{ each.own.map((part) => part.name).join(', ') }}</span>
        </dt>
        <dd class="figure">{{ quantity(each.grams, 'mass') }}</dd>
      </template>
    </dl>
    <p v-if="unsorted.length" class="small asked">
      Counted as the rest: {{ unsorted.map((part) => part.name).join(', ') }}. Say “in control”, “in
      foam” on its line where it belongs elsewhere.
    </p>
  </form>
</template>

<style scoped>
.donor {
  display: grid;
  grid-template-columns: minmax(260px, 420px) minmax(0, 1fr);
  gap: 10px 32px;
  border-left: 3px solid var(--oak);
  padding: 12px 16px;
  margin: 10px 0;
}

.typed {
  display: grid;
  gap: 10px;
  justify-items: start;
}

.typed > :deep(.v-input) {
  width: 100%;
}

dl {
  display: grid;
  grid-template-columns: minmax(0, 1fr) max-content;
  gap: 6px 18px;
  align-content: start;
}

dt {
  display: grid;
}

.asked {
  grid-column: 1 / -1;
}

@media (max-width: 700px) {
  .donor {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
