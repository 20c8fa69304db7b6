<script setup lang="ts">
import { inSentence } from '../say/names'
import { fixed } from '../shared/units'
import { computed } from 'vue'
import { goesSideways, useFieldWords } from '../say/field'
import { useBuild } from '../shared/useBuild'
import { useField } from './useField'

const { told, controls, bend, bendAll, waiting, outOfReach } = useField()
const { build } = useBuild()
const words = useFieldWords()

const fins = computed(
  () => new Set((build.value?.surfaces ?? []).filter((s) => s.role === 'fin').map((s) => s.id)),
)
const named = (id: string) => inSentence(controls.value.find((each) => each.id === id)?.name ?? id)
const sideways = (id: string) => {
  const control = controls.value.find((each) => each.id === id)
  return control !== undefined && goesSideways(control, fins.value)
}
const advice = computed(() =>
  told.value ? words.advice(told.value.advice, named, sideways) : undefined,
)
const changes = computed(() => (told.value?.changes ?? []).slice(-4).reverse())
const planned = computed(() => told.value?.planned)
const best = computed(() => told.value?.best)
const isBest = computed(() =>
  (best.value?.settings ?? []).every(
    (each) => controls.value.find((c) => c.id === each.control)?.set_mm === each.mm,
  ),
)
const settings = computed(() =>
  (best.value?.settings ?? [])
    .map((each) => `${named(each.control)} ${words.setting(each.mm, sideways(each.control))}`)
    .join(', '),
)
const turn = computed(() => {
  const last = told.value?.last_change
  return last && last.compared.more !== null && last.compared.more > 0 ? last : undefined
})
</script>

<template>
  <section v-if="told && advice" aria-label="What next">
    <h2>{{ advice.what }}</h2>
    <p class="faint">{{ advice.because }}.</p>
    <p v-if="outOfReach || waiting.length" class="small faint" role="note">
      As the workshop told it last; what waits here is not in it yet.
    </p>
    <p v-if="told.advice.do === 'set' && told.advice.control">
      <v-btn @click="bend(told.advice.control, told.advice.to_mm ?? 0)">
        It is set to {{ words.setting(told.advice.to_mm ?? 0, sideways(told.advice.control)) }}
      </v-btn>
    </p>
    <template v-if="turn">
      <h3>Which to throw next</h3>
      <p>
        {{ named(turn.control) }} at
        <strong>{{ words.setting(turn.next_mm, sideways(turn.control)) }}</strong>, in turns with
        the other, for the wind.
      </p>
    </template>
    <h3 v-if="changes.length">Better, or luck</h3>
    <p v-for="each in changes" :key="`${each.control} ${each.from_mm} ${each.to_mm}`">
      {{ named(each.control) }}: {{ words.change(each, sideways(each.control)) }}.
    </p>
    <p v-if="planned" class="small">
      Best so far for the {{ named(planned.control) }}:
      <strong>{{ words.setting(planned.best.best_mm, sideways(planned.control)) }}</strong>, within
      5 % of the best with {{ Math.round(100 * planned.best.close) }} %; the best lies between
      {{ words.setting(Math.round(10 * planned.best.low_mm) / 10, sideways(planned.control)) }} and
      {{ words.setting(Math.round(10 * planned.best.high_mm) / 10, sideways(planned.control)) }} (80
      %).
    </p>
    <p v-if="best" class="small">
      Furthest: {{ words.far(best.distance_m) }} with {{ settings || 'nothing set' }} ({{
        best.throws
      }}
      {{ best.throws === 1 ? 'throw' : 'throws' }})<template v-if="best.changed_since.length"
        >; since then {{ best.changed_since.join(', ') }}</template
      >.
      <v-verb v-if="!isBest" @click="bendAll(best.settings)"> it is set like that again </v-verb>
    </p>
    <p v-if="told.glide || told.sink" class="small faint">
      <template v-if="told.glide"
        >Glide {{ fixed(told.glide.value, 1) }} ±{{ fixed(2 * told.glide.sd, 1) }} to 1</template
      ><template v-if="told.glide && told.sink">, </template
      ><template v-if="told.sink"
        >sink {{ words.sink(told.sink.value) }} ±{{ words.sink(2 * told.sink.sd) }}</template
      >, from the last {{ Math.max(told.glide?.throws ?? 0, told.sink?.throws ?? 0) }} with this
      setting.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

h3 {
  margin-top: 6px;
}
</style>
