<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Opened, type Shelved } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { id, assessment, send } = useBuild()
const { number, quantity, stated, exactness, units, inProportion } = useUnits()
const told = computed(() => assessment.value?.so_far)

const shelf = useQuery({
  queryKey: ['shelf'],
  queryFn: () => answered<Shelved[]>(api.GET('/api/v1/builds')),
})
const others = computed(() => (shelf.data.value ?? []).filter((each) => each.id !== id.value))

function measureBy(build: string) {
  void send((header) =>
    answered<Opened>(
      api.PUT('/api/v1/builds/{build_id}/reference-build', {
        params: { path: { build_id: id.value }, header },
        body: { build: build || null },
      }),
    ),
  )
}
/** All of it is as exact as the whole of it. */
const exactly = computed(() =>
  Math.max(exactness(told.value?.forecast_sd_g), inProportion(told.value?.forecast_g ?? 0)),
)
const whole = (grams: number) => number(grams, 'mass', exactly.value)
</script>

<template>
  <section v-if="told" aria-label="So far">
    <div class="head">
      <h3>
        So far on a pan
        <span class="figure">{{ quantity(told.been_g, 'mass', exactly) }}</span> of
        <span class="figure">{{ quantity(told.forecast_g, 'mass', exactly) }}</span>
        <span class="faint figure"> ±{{ number(2 * told.forecast_sd_g, 'mass', exactly) }}</span>
      </h3>
      <p class="faint small">
        <template v-if="told.limit_g !== null"
          >limit {{ stated(told.limit_g) }} {{ units.mass.name }}</template
        >
        <template v-if="told.budget_g !== null">
          · budget {{ stated(told.budget_g) }} {{ units.mass.name }}</template
        >
        <template v-if="told.reference_g !== null">
          · {{ told.reference }} {{ quantity(told.reference_g, 'mass', exactly) }}</template
        >
      </p>
      <label class="small"
        >measured by
        <PickList
          :model-value="''"
          :items="[
            {
              value: '',
              title: told.reference ? `${told.reference}; or nobody` : 'no earlier build',
            },
            ...named(others),
          ]"
          aria-label="Measured by"
          @update:model-value="measureBy($event)"
      /></label>
    </div>
    <div class="wide" tabindex="0" role="group" aria-label="A table, wider than the screen perhaps">
      <v-table class="lined">
        <thead class="faint">
          <tr>
            <th>stage</th>
            <th class="right">on a pan</th>
            <th class="right">forecast</th>
            <th class="right">running total</th>
            <th v-if="told.reference" class="right">{{ told.reference }}</th>
            <th v-if="told.reference" class="right">running there</th>
            <th v-if="told.reference" class="right">against it</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="stage in told.stages" :key="stage.assembly">
            <td>{{ stage.assembly || 'Loose parts' }}</td>
            <td class="figure right">{{ whole(stage.been_g) }}</td>
            <td class="figure right">
              {{ whole(stage.mass_g) }}
              <span class="faint">±{{ whole(2 * stage.sd_g) }}</span>
            </td>
            <td class="figure right">
              <strong>{{ whole(stage.running_g) }}</strong>
            </td>
            <template v-if="told.reference">
              <td class="figure right">
                {{ stage.reference_g === null ? '–' : whole(stage.reference_g) }}
              </td>
              <td class="figure right">
                {{ stage.reference_running_g === null ? '–' : whole(stage.reference_running_g) }}
              </td>
              <td
                class="figure right"
                :class="{ wrong: stage.reference_g !== null && stage.mass_g > stage.reference_g }"
              >
                <template v-if="stage.reference_g !== null"
                  >{{ stage.mass_g >= stage.reference_g ? '+' : '−'
                  }}{{ whole(Math.abs(stage.mass_g - stage.reference_g)) }}</template
                >
              </td>
            </template>
          </tr>
        </tbody>
      </v-table>
    </div>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
  margin-bottom: 6px;
}

.v-table {
  min-width: 560px;
}
</style>
