<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { once } from '../shared/once'
import { renewed } from '../shared/renewed'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import {
  answered,
  api,
  type VariantComparison,
  type Opened,
  type TargetAnswer,
} from '../api/client'
import { KINDS, METRICS } from '../say/metrics'
import { useVariantWords } from '../say/variants'
import { useBuild } from '../shared/useBuild'
import { percent, useUnits } from '../shared/units'
import { useWords } from '../shared/useWords'
import { useVerdicts } from '../shared/verdicts'

const { id, send, revision } = useBuild()
const { number, units, exactLeft } = useUnits()
const { value } = useVerdicts()
const words = useWords()
const client = useQueryClient()
const router = useRouter()

const query = useQuery({
  // They follow every change at once: of this build by its revision, of the others on looking.
  queryKey: ['variants', id, revision],
  refetchOnMount: 'always',
  queryFn: () =>
    answered<VariantComparison[]>(
      api.GET('/api/v1/builds/{build_id}/variants', { params: { path: { build_id: id.value } } }),
    ),
})
const family = computed(() => query.data.value ?? [])
const origin = computed(() => family.value[0]?.build)

const name = ref('')
const keepOne = once(async () => {
  if (!name.value.trim()) return
  try {
    const made = await answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/variants', {
        params: { path: { build_id: id.value } },
        body: { name: name.value.trim() },
      }),
    )
    name.value = ''
    void renewed(client, ['shelf'])
    void router.push({ name: 'plan', params: { id: made.build.id } })
  } catch (error) {
    words.complain(error)
  }
})
async function adopt(variant: string) {
  const kept = await send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/variants/{variant_id}/adopted', {
        params: { path: { build_id: id.value, variant_id: variant }, header },
      }),
    ),
  )
  if (kept) void renewed(client, ['shelf'])
}
async function letGo(variant: string) {
  try {
    await answered(
      api.PUT('/api/v1/builds/{build_id}/put-away', {
        params: { path: { build_id: variant } },
        body: { away: true },
      }),
    )
    void renewed(client, ['variants', id.value])
    void renewed(client, ['shelf'])
  } catch (error) {
    words.complain(error)
  }
}
const changes = useVariantWords()
const kinds = computed(() =>
  KINDS.filter((kind) => family.value.some((each) => first(each, kind) !== undefined)),
)
const figure = (answer: TargetAnswer | undefined) =>
  answer?.value == null ? '–' : value(answer.value, answer)
const left = ({ grams, sd_g }: { grams: number; sd_g: number }) =>
  number(grams, 'mass', exactLeft(grams, sd_g))
const first = (each: VariantComparison, kind: string) =>
  each.loadouts[0]?.answers.find((answer) => answer.kind === kind)
/** By how many per cent it is more than the build that it is a variant of. */
function more(each: VariantComparison, kind: string): string {
  const at = each.loadouts[0]?.answers.findIndex((answer) => answer.kind === kind) ?? -1
  const share = each.shares[at]
  return each.build === origin.value || share == null ? '' : percent(share)
}
</script>

<template>
  <section aria-label="What if">
    <h2>What if <span class="faint small">kept beside it, to adopt or to drop</span></h2>
    <div
      v-if="family.length > 1"
      class="wide"
      tabindex="0"
      role="group"
      aria-label="A table, wider than the screen perhaps"
    >
      <v-table class="lined">
        <thead class="faint">
          <tr>
            <th>variant</th>
            <th v-for="kind in kinds" :key="kind" class="right">{{ METRICS[kind].short }}</th>
            <th class="right">left to add</th>
            <th class="right">stalls, {{ units.speed.name }}</th>
            <th>changed</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="each in family" :key="each.build" :data-variant="each.name">
            <td>
              <strong v-if="each.build === id">{{ each.name }}</strong>
              <router-link v-else :to="{ name: 'balance', params: { id: each.build } }">{{
                each.name
              }}</router-link>
            </td>
            <td v-for="kind in kinds" :key="kind" class="figure right">
              {{ figure(first(each, kind)) }}
              <span v-if="kind !== 'balance'" class="faint small">{{ more(each, kind) }}</span>
            </td>
            <td class="figure right">
              {{ each.loadouts[0]?.headroom[0] ? left(each.loadouts[0].headroom[0]) : '–' }}
            </td>
            <td class="figure right">
              {{ each.stall_m_s ? number(each.stall_m_s, 'speed') : '–' }}
            </td>
            <td class="small">
              {{ changes(each) || (each.build === origin ? '' : 'nothing yet') }}
            </td>
            <td class="small">
              <template v-if="each.build !== origin">
                <v-verb v-if="id === origin" @click="adopt(each.build)"> adopt </v-verb>
                <v-verb v-if="each.build !== id" class="faint" @click="letGo(each.build)">
                  drop
                </v-verb>
              </template>
            </td>
          </tr>
        </tbody>
      </v-table>
    </div>
    <form class="small" @submit.prevent="keepOne">
      <label
        >keep a copy to try on, called
        <v-text-field
          v-model="name"
          class="entry"
          placeholder="with a second wing"
          maxlength="80"
        />
      </label>
      <v-btn type="submit">Keep it</v-btn>
    </form>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

form {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}

.v-table {
  min-width: 640px;
}
</style>
