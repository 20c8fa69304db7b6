<script setup lang="ts">
import { FLAWS, useBalanceWords } from '../say/balance'
import { computed, nextTick, ref } from 'vue'
import { answered, api, type Opened } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import CheckForm from './CheckForm.vue'
import { WAYS, type Way } from './ways'

const { reason: explains, checked } = useBalanceWords()

const { id, build, assessment, loadouts, balanced, send } = useBuild()
const { number, units } = useUnits()
const way = ref<Way | null>(null)
const pack = computed(() => assessment.value?.carries.pack ?? true)
function open(chosen: Way) {
  way.value = way.value === chosen ? null : chosen
}

/** The form goes; a hand that was in it is back on what opened it. */
const root = ref<HTMLElement>()
async function kept(of: Way) {
  const wasWithin = root.value?.contains(document.activeElement)
  way.value = null
  await nextTick()
  if (wasWithin) root.value?.querySelector<HTMLElement>(`[data-way="${of}"]`)?.focus()
}

function aside(check: string, reason: string | null) {
  void send(() =>
    answered<Opened>(
      api.PUT('/api/v1/builds/{build_id}/checks/{check_id}/set-aside', {
        params: { path: { build_id: id.value, check_id: check } },
        body: { reason },
      }),
    ),
  )
}

const HOW = { support: 'rests', supports: 'two supports', sides: 'left and right', hang: 'hangs' }
const made = computed(() =>
  [...(assessment.value?.beam.checks ?? [])].reverse().map((told) => {
    const check = build.value?.checks.find((each) => each.id === told.id)
    const gap = told.found_mm - told.sum_mm
    const far = number(Math.abs(gap), 'length')
    const way = told.across ? (gap > 0 ? 'to the right' : 'to the left') : gap > 0 ? 'aft' : 'ahead'
    return {
      ...told,
      aside: check?.set_aside ?? null,
      how: check ? (told.feel ? `${told.feel} at` : HOW[check.kind]) : '',
      at: told.feel ? (check?.x_mm ?? told.found_mm) : told.found_mm,
      give: told.feel ? null : told.found_sd_mm,
      with:
        told.held_alone ||
        (loadouts.value.find((each) => each.id === told.loadout)?.name ?? 'everything aboard'),
      words: told.feel
        ? told.agrees
          ? 'the sum agrees'
          : 'the sum says otherwise'
        : told.agrees
          ? 'agrees with the sum'
          : `${far} ${units.value.length.name} ${way} of the sum`,
    }
  }),
)
const whether = computed(() => (balanced.value ? checked(balanced.value.checked) : ''))
</script>

<template>
  <section ref="root" aria-label="Checked on the bench">
    <h2>Checked on the bench</h2>
    <p class="small" :class="{ wrong: balanced?.checked.how === 'not_since' }">
      {{ whether.replace(/^./, (first) => first.toUpperCase()) }}.
    </p>
    <ul>
      <li
        v-for="check in made"
        :key="check.id"
        :class="{ gone: check.aside !== null }"
        :data-check="check.id"
      >
        <span>
          <strong>{{ check.how }}</strong>{{ ' ' }}
          <span class="figure">{{ number(check.at, 'length') }}</span>
          <span v-if="check.give !== null" class="faint figure">
            ±{{ number(2 * check.give, 'length') }}</span
          >
          {{ units.length.name }}: {{ check.words }}
        </span>
        <span class="faint small">{{ check.with }}</span>
        <p v-if="check.flaw" class="note small" role="note">{{ FLAWS[check.flaw] }}</p>
        <p v-if="check.disagrees && check.aside === null" class="note small" role="note">
          It disagrees with the sum.
          <template v-if="check.reasons.length">What would explain it:</template>
          <span v-for="(reason, at) in check.reasons" :key="at" class="reason">
            {{ at ? 'or ' : '' }}{{ explains(reason) }}
          </span>
        </p>
        <v-verb class="small faint" @click="aside(check.id, check.aside === null ? 'wrong' : null)">
          {{ check.aside === null ? 'set aside' : 'count it again' }}
        </v-verb>
      </li>
    </ul>
    <p v-if="!made.length" class="faint small">
      Hold it at both wing marks{{ pack ? ', with the pack in, canopy on' : '' }}, everything taped
      where it flies.
    </p>
    <div class="ways">
      <v-btn
        v-for="each in WAYS"
        :key="each.value"
        :data-way="each.value"
        :aria-pressed="way === each.value"
        @click="open(each.value)"
        >{{ each.title }}</v-btn
      >
    </div>
    <CheckForm v-if="way" :key="way" :way="way" @kept="kept(way)" />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

li {
  display: grid;
  gap: 2px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  font-size: 14px;
  justify-items: start;
}

.gone > span {
  text-decoration: line-through;
}

.note {
  border-left: 4px solid var(--rust);
  background: var(--rust-wash);
  padding: 5px 8px;
}

.reason {
  display: block;
}

.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
