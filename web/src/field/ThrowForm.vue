<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'
import limits from '../api/limits.json'
import type { Seen } from '../api/client'
import { MPH_M_S, OFTEN, SEEN, SELDOM } from '../say/field'
import { fixed, plainly, useUnits } from '../shared/units'
import AsItIsSet from './AsItIsSet.vue'
import ThrowRuler from './ThrowRuler.vue'
import { figureOf, plain } from './plain'
import ChoiceButtons from '../shared/ChoiceButtons.vue'
import { useField } from './useField'

const { told, throws, keepThrow } = useField()
const { units } = useUnits()

const seen = ref<Seen | null>(null)
const choices = computed(() =>
  (more.value ? [...OFTEN, ...SELDOM] : OFTEN).map((name) => ({ name, title: SEEN[name] })),
)
const metres = ref('')
const seconds = ref('')
const height = ref('')
const wind = ref('')
const note = ref('')
const more = ref(false)
const wrong = ref('')
const kept = ref('')

const run = computed(() => units.value.run)
const windBase = computed(() => (run.value.name === 'm' ? 1 : MPH_M_S))
const lastHeight = computed(() => {
  const last = [...throws.value].reverse().find((each) => each.height_m)
  return last?.height_m ? +(last.height_m / run.value.base).toFixed(2) : null
})

/** The wind of the last throw, as it is typed; nothing where nobody said. */
const lastWind = computed(() => {
  const blew = throws.value.at(-1)?.wind_m_s ?? null
  return blew === null ? null : +(blew / windBase.value).toFixed(1)
})
function blowsAgain() {
  wind.value = String(lastWind.value ?? '')
  more.value = true
}

/** A stopwatch for the throw: pressed when it leaves the hand, and when it lands. */
const started = ref<number | null>(null)
const ticking = ref(0)
let beat: ReturnType<typeof setInterval> | undefined
function watch() {
  if (started.value === null) {
    started.value = performance.now()
    ticking.value = 0
    beat = setInterval(() => (ticking.value = performance.now() - (started.value ?? 0)), 100)
    return
  }
  clearInterval(beat)
  seconds.value = ((performance.now() - started.value) / 1000).toFixed(1)
  started.value = null
}
onBeforeUnmount(() => clearInterval(beat))

function keep() {
  wrong.value = kept.value = ''
  try {
    const base = run.value.base
    const most = limits.throw
    const what = run.value.name === 'm' ? 'Metres' : 'Feet'
    const far = figureOf(metres.value, what, most.distance_m, base)
    const high = figureOf(height.value, 'From', most.height_m, base)
    const long = figureOf(seconds.value, 'Seconds', most.seconds)
    const blows = figureOf(wind.value, 'Wind', most.wind_m_s, windBase.value)
    if (!seen.value && far === null && long === null)
      throw new Error('Say what it did, or how far, or how long')
    keepThrow({
      seen: seen.value,
      distance_m: far,
      height_m: high,
      seconds: long,
      wind_m_s: blows,
      note: note.value.trim(),
      set_aside: null,
    })
    kept.value = `Throw ${throws.value.length} kept`
    seen.value = null
    metres.value = seconds.value = height.value = wind.value = note.value = ''
  } catch (error) {
    wrong.value = error instanceof Error ? error.message : String(error)
  }
}
</script>

<template>
  <form aria-label="A throw" @submit.prevent="keep">
    <AsItIsSet :all="more" />
    <p class="faint small what">what it did</p>
    <ChoiceButtons v-model="seen" :options="choices" label="What it did" :columns="3" optional />
    <ThrowRuler
      :value="plain(metres)"
      :unit="run.name"
      :most="run.name === 'm' ? 30 : 100"
      @chosen="metres = String($event)"
    />
    <div class="figures">
      <v-text-field
        v-model="metres"
        :label="run.name === 'm' ? 'metres' : 'feet'"
        inputmode="decimal"
        autocomplete="off"
        hide-details
      />
      <v-text-field
        v-model="seconds"
        label="seconds"
        inputmode="decimal"
        autocomplete="off"
        hide-details
      />
      <v-text-field
        v-model="height"
        :label="`from, ${run.name}`"
        :placeholder="lastHeight === null ? '' : String(lastHeight)"
        inputmode="decimal"
        autocomplete="off"
        hide-details
      />
    </div>
    <p class="also small">
      <v-verb @click="watch">
        {{ started === null ? 'start the watch' : `landed: ${fixed(ticking / 1000, 1)} s` }}
      </v-verb>
      <v-verb v-if="lastHeight !== null && height === ''" @click="height = String(lastHeight)">
        from {{ plainly(lastHeight) }} {{ run.name }} again
      </v-verb>
      <v-verb v-if="lastWind !== null && wind === ''" @click="blowsAgain">
        wind {{ plainly(lastWind) }} again
      </v-verb>
      <v-verb :aria-expanded="more" @click="more = !more">
        {{ more ? 'less' : 'wind, a note, other words' }}
      </v-verb>
    </p>
    <div v-if="more" class="figures two">
      <v-text-field
        v-model="wind"
        :label="run.name === 'm' ? 'wind, m/s' : 'wind, mph'"
        inputmode="decimal"
        autocomplete="off"
        hide-details
      />
      <v-text-field v-model="note" label="note" maxlength="200" autocomplete="off" hide-details />
    </div>
    <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
    <v-btn class="press--main keep" type="submit">Keep this throw</v-btn>
    <p class="small faint" role="status">{{ kept || `With ${told?.name}` }}</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
  align-content: start;
}

.figures {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}

.figures :deep(input) {
  font-family: var(--figures);
  font-size: 22px;
  min-height: 48px;
}

.two {
  grid-template-columns: 1fr 2fr;
}

.two :deep(input) {
  font-size: 16px;
}

.also {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}

.also button {
  min-height: 44px;
}

.keep {
  min-height: 54px;
}
</style>
