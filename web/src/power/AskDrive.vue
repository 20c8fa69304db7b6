<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answered, api, type Predicted } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import { useDrive, usePair } from './useDrive'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { drive } = useDrive()
const { id, revision } = useBuild()
const { number, units } = useUnits()

const { pack, propeller } = usePair()
const throttle = ref(0.75)
const asked = computed(() => ({
  pack: pack.value,
  propeller: propeller.value,
  throttle: throttle.value,
}))
const query = useQuery({
  queryKey: ['prediction', id, revision, asked],
  enabled: computed(() => pack.value !== '' && propeller.value !== ''),
  placeholderData: (before: Predicted | undefined) => before,
  queryFn: () =>
    answered<Predicted>(
      api.GET('/api/v1/builds/{build_id}/power/prediction', {
        params: { path: { build_id: id.value }, query: asked.value },
      }),
    ),
})
const told = computed(() => query.data.value)
const HOW = { run: 'run', stated: 'stated', calculated: 'calculated', guess: 'a guess' }
const figures = computed(() => {
  const of = told.value
  if (!of) return []
  const write = (value: number, sd: number, digits: number) => ({
    value: fixed(value, digits),
    doubt: fixed(2 * sd, digits),
  })
  const gf = units.value.thrust
  return [
    {
      unit: gf.name,
      value: number(of.thrust_gf, 'thrust'),
      doubt: number(2 * of.thrust_sd_gf, 'thrust'),
    },
    { unit: 'A', ...write(of.pack_a, of.pack_sd_a, 1) },
    { unit: 'V', ...write(of.pack_v, of.pack_sd_v, 1) },
    { unit: 'W', ...write(of.power_w, of.power_sd_w, 0) },
    { unit: `${gf.name}/W`, ...write(of.gf_per_w / gf.base, of.gf_per_w_sd / gf.base, 2) },
  ]
})
</script>

<template>
  <section v-if="drive?.packs.length && drive.propellers.length" aria-label="At any throttle">
    <h2>At any throttle <span class="faint small">a pack half used</span></h2>
    <div class="asks">
      <span>
        <QuantityCell
          :value="100 * throttle"
          kind="number"
          label="Throttle asked, per cent"
          :least="0"
          :most="100"
          :digits="0"
          @kept="(percent) => percent !== null && (throttle = percent / 100)"
        />
        %</span
      >
      <PickList v-model="pack" :items="named(drive.packs)" label="Pack asked" hide-details />
      <PickList
        v-model="propeller"
        :items="named(drive.propellers)"
        label="Propeller asked"
        hide-details
      />
    </div>
    <p v-if="told" class="told">
      <span v-for="each in figures" :key="each.unit" class="figure"
        >{{ each.value }}<span class="faint"> ±{{ each.doubt }}</span> {{ each.unit }}</span
      >
      <span class="faint small">{{ HOW[told.known] }}</span>
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

.asks {
  display: grid;
  grid-template-columns: auto 1fr 1fr;
  gap: 10px;
  align-items: center;
}

.asks :deep(.cell) {
  width: 62px;
}

.told {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin: 0;
}
</style>
