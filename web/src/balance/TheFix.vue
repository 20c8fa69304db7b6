<script setup lang="ts">
import { useRemedyWords } from '../say/remedies'
import { useUnits } from '../shared/units'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Opened, type Remedies } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { percent } from '../shared/verdicts'
import { useTrial } from './useTrial'
import { useUnplacedWords } from '../say/unplaced'

const { outcome, other, offer, beside } = useRemedyWords()
const { unplaced } = useUnplacedWords()
const { number, units } = useUnits()

const { id, revision, assessment, balanced, loadouts, send } = useBuild()
const { tryOut, drop, tried } = useTrial()

// What is shown is what is done: it belongs to one revision of the build, and to no other.
const query = useQuery({
  queryKey: ['remedies', id, revision],
  staleTime: Infinity,
  queryFn: async () => {
    const request = api.GET('/api/v1/builds/{build_id}/remedies', {
      params: { path: { build_id: id.value } },
    })
    const remedies = await answered<Remedies>(request)
    return { remedies, match: (await request).response.headers.get('ETag') ?? '' }
  },
})
const told = computed(() => query.data.value?.remedies)
const best = computed(() => told.value?.best)
const isFine = computed(() => best.value && !best.value.slides.length && !best.value.ballast.length)
const name = (loadout: string) =>
  loadouts.value.find((each) => each.id === loadout)?.name ?? loadout

/** Where it would be written down: what a check says of a place stays as it is. */
function placed(slid: { part: string; from_mm: number; to_mm: number }): number {
  const now = assessment.value?.parts.find((each) => each.id === slid.part)?.x_from_nose_mm
  return (now ?? slid.from_mm) + slid.to_mm - slid.from_mm
}

function show() {
  if (tried.value) drop()
  else tryOut((best.value?.slides ?? []).map((each) => ({ part: each.part, x: placed(each) })))
}

function doIt(which = 0) {
  const match = query.data.value?.match
  drop()
  if (!match) return
  void send(() =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/remedies/done', {
        params: { path: { build_id: id.value }, header: { 'If-Match': match } },
        body: { which },
      }),
    ),
  )
}
</script>

<template>
  <section aria-label="What would fix it">
    <h2>{{ isFine ? 'Nothing to fix' : 'What would fix it' }}</h2>
    <p v-if="balanced?.unplaced">
      {{ unplaced(balanced.unplaced) }}
      <router-link :to="{ name: 'plan', params: { id }, query: { on: 'parts', only: 'adrift' } }"
        >Say where</router-link
      >
    </p>
    <p v-if="query.isPending.value" class="faint working">Working it out …</p>
    <p v-else-if="told && isFine">{{ outcome(told) }}</p>
    <template v-else-if="told && best">
      <div class="best">
        <strong>{{ outcome(told) }}</strong>
        <p class="faint small">
          <template v-for="(each, at) in best.loadouts" :key="each.loadout"
            ><template v-if="at">; </template>{{ name(each.loadout) }}
            <span class="figure">{{ number(each.x_mm, 'length') }}</span>
            {{ units.length.name }}</template
          >.
          {{
            told.sure
              ? 'Every loadout in its range.'
              : `The least sure is in its range with ${percent(best.chance)}.`
          }}
        </p>
        <div class="verbs">
          <v-btn class="press--main" @click="doIt()">Do it</v-btn>
          <v-btn v-if="best.slides.length" @click="show">{{
            tried ? 'Back' : 'Show on the beam'
          }}</v-btn>
        </div>
      </div>
      <p v-for="(each, at) in told.others" :key="at" class="small faint">
        {{ other(each) }}
        <v-verb v-if="!each.breaks_limit" @click="doIt(at + 1)"> do this </v-verb>
      </p>
    </template>
    <template v-else-if="told">
      <p :class="{ wrong: told.in_the_way }">{{ outcome(told) }}</p>
      <p v-for="(each, at) in told.offers" :key="at" class="small">
        {{ offer(each) }}
        <v-verb @click="doIt(at)">allow it, and do it</v-verb>
      </p>
    </template>
    <p v-if="told?.sideways" class="small">{{ beside(told) }}</p>
    <p class="faint small">
      {{ assessment?.carries.pack === false ? 'Ballast' : 'Ballast and packs' }} must not be able to
      come loose: tape until the first flights prove it, then fix for good.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

/* As tall as what comes, so that nothing below it moves away under a finger. */
.working {
  min-height: 168px;
}

.best {
  border: 2px solid var(--ink);
  background: var(--linen);
  padding: 12px 14px;
  display: grid;
  gap: 6px;
}

.verbs {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
