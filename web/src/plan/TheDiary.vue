<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { answered, api, type Assessment } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import { useWords } from '../shared/useWords'
import { useLife } from './useLife'

const { id, build, assessment, loadout } = useBuild()
const { quantity, number, units } = useUnits()
const words = useWords()
const { finish } = useLife()

const when = (at: string) =>
  new Date(at).toLocaleDateString([], { day: 'numeric', month: 'short', year: 'numeric' })
const entries = computed(() => [...(build.value?.happenings ?? [])].reverse())

const day = ref('')
const then = ref<Assessment>()
watch(day, async (chosen) => {
  then.value = undefined
  if (!chosen) return
  try {
    const at = new Date(`${chosen}T23:59:59`).toISOString()
    then.value = await answered<Assessment>(
      api.GET('/api/v1/builds/{build_id}/as-of', {
        params: { path: { build_id: id.value }, query: { at } },
      }),
    )
  } catch (error) {
    words.complain(error)
  }
})
const answers = computed(() => {
  const of = then.value?.loadouts.find((each) => each.id === loadout.value?.id)
  return (of ?? then.value?.loadouts[0])?.answers ?? []
})
const auw = computed(() => answers.value.find((each) => each.kind === 'auw'))
const balance = computed(() => answers.value.find((each) => each.kind === 'balance'))
const unchecked = computed(() =>
  assessment.value?.unchecked.find((each) => each.loadout === loadout.value?.id),
)
</script>

<template>
  <section aria-label="Diary">
    <h2>Diary</h2>
    <p v-if="unchecked" class="wrong small">
      Balance not checked since {{ when(unchecked.since) }}: {{ unchecked.words }}.
    </p>
    <p v-if="!entries.length" class="faint small">
      Nothing has happened yet. Press a part's name, then “it was repaired, replaced …”.
    </p>
    <ol v-else>
      <li v-for="entry in entries" :key="entry.id">
        <span class="faint figure">{{ when(entry.at) }}</span> {{ entry.words }}
      </li>
    </ol>
    <p class="asof">
      <label
        >the plane as it was on
        <input v-model="day" class="entry" type="date" aria-label="The plane as it was on" />
      </label>
      <span v-if="auw && auw.value !== null" class="figure" data-then
        >{{ quantity(auw.value, 'mass', 0) }}
        <span class="faint">±{{ number(2 * (auw.sd ?? 0), 'mass', 0) }}</span
        ><template v-if="balance && balance.value !== null && balance.unit === 'percent_mac'"
          >, {{ balance.value.toFixed(1) }} % MAC</template
        ></span
      >
      <span v-if="then" class="faint small">{{ then.items.length }} parts then</span>
    </p>
    <p>
      <label class="small"
        ><input
          type="checkbox"
          :checked="build?.finished_at !== null"
          @change="finish(($event.target as HTMLInputElement).checked)"
        />
        finished{{ build?.finished_at ? ` on ${when(build.finished_at)}` : '' }}: what was left off
        its list teaches the next build</label
      >
    </p>
    <p v-if="build?.allowance" class="faint small">
      Still to come counts as {{ (100 * build.allowance.value).toFixed(1) }} ±{{
        (200 * build.allowance.doubt).toFixed(1)
      }}
      % of the rest, as {{ build.allowance.source }} turned out ({{ units.mass.name }} on the
      Bench).
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  align-content: start;
}

ol {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 220px;
  overflow-y: auto;
}

li {
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  font-size: 14px;
}

.asof {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  font-size: 14px;
}
</style>
