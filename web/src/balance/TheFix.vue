<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { answered, api, type Opened, type Remedies } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { useTrial } from './useTrial'

const { id, build, loadouts, send } = useBuild()
const { tryOut, drop, tried } = useTrial()
const client = useQueryClient()

const query = useQuery({
  queryKey: ['remedies', id],
  queryFn: () =>
    answered<Remedies>(
      api.GET('/api/v1/builds/{build_id}/remedies', { params: { path: { build_id: id.value } } }),
    ),
})
watch(build, () => void client.invalidateQueries({ queryKey: ['remedies', id.value] }))
const told = computed(() => query.data.value)
const best = computed(() => told.value?.best)
const isFine = computed(() => best.value && !best.value.slides.length && !best.value.ballast.length)
const name = (loadout: string) =>
  loadouts.value.find((each) => each.id === loadout)?.name ?? loadout

function show() {
  if (tried.value) drop()
  else tryOut((best.value?.slides ?? []).map((each) => ({ item: each.item, x: each.to_mm })))
}

function doIt(which = 0) {
  drop()
  void send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/remedies/done', {
        params: { path: { build_id: id.value }, header },
        body: { which },
      }),
    ),
  )
}
</script>

<template>
  <section aria-label="What would fix it">
    <h2>{{ isFine ? 'Nothing to fix' : 'What would fix it' }}</h2>
    <p v-if="query.isPending.value" class="faint">Working it out …</p>
    <p v-else-if="isFine">{{ told?.words }}</p>
    <template v-else-if="best">
      <div class="best">
        <strong>{{ best.words }}</strong>
        <p class="faint small">
          <template v-for="(each, at) in best.loadouts" :key="each.loadout"
            ><template v-if="at">; </template>{{ name(each.loadout) }}
            <span class="figure">{{ each.x_mm.toFixed(0) }}</span> mm</template
          >. Every loadout in its range.
        </p>
        <div class="verbs">
          <v-btn class="press--main" @click="doIt()">Do it</v-btn>
          <v-btn v-if="best.slides.length" @click="show">{{
            tried ? 'Back' : 'Show on the beam'
          }}</v-btn>
        </div>
      </div>
      <p v-for="(other, at) in told?.others ?? []" :key="at" class="small faint">
        {{ other.words }}
        <button
          v-if="!other.words.includes('breaks')"
          type="button"
          class="plainly under"
          @click="doIt(at + 1)"
        >
          do this
        </button>
      </p>
    </template>
    <p v-else :class="{ wrong: told?.in_the_way }">{{ told?.words }}</p>
    <p class="faint small">
      Ballast and packs must not be able to come loose: tape until the first flights prove it, then
      fix for good.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
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
