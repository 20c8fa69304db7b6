<script setup lang="ts">
import { howMany } from '../say/counts'
import { fixed, plainly } from '../shared/units'
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import limits from '../api/limits.json'
import { useFieldWords } from '../say/field'
import { useBuild } from '../shared/useBuild'
import { figureOf } from './plain'
import ChoiceButtons from '../shared/ChoiceButtons.vue'
import { useField } from './useField'
import { useTimer } from './useTimer'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { id, field, told, waiting, keepFlight, setAside } = useField()
const { build, assessment } = useBuild()
const words = useFieldWords()
const timer = useTimer(id.value)

type Landing = NonNullable<Schemas['FlightEntry']['landing']>
const LANDINGS: { name: Landing; title: string }[] = [
  { name: 'soft', title: 'soft' },
  { name: 'hard', title: 'hard' },
  { name: 'crash', title: 'crash' },
]

const packs = computed(() => build.value?.power?.packs ?? [])
const aboard = computed(() => {
  const parts = assessment.value?.loadouts.find((each) => each.id === told.value?.id)?.aboard ?? []
  const flies = packs.value.find((each) => parts.includes(each.part ?? ''))
  return flies?.id ?? packs.value[0]?.id ?? ''
})
const chosen = ref('')
const pack = computed({
  get: () => chosen.value || aboard.value,
  set: (value: string) => (chosen.value = value),
})

const minutes = ref('')
const putBack = ref('')
const landing = ref<Landing | null>(null)
const note = ref('')
const wrong = ref('')
const said = ref('')

function stop() {
  timer.toggle()
  if (!timer.running.value && timer.ms.value > 0) minutes.value = fixed(timer.ms.value / 60_000, 1)
}

function keep() {
  wrong.value = said.value = ''
  const { minutes: long, put_back_mah: full } = limits.flight
  let flown: number
  let back: number | null
  try {
    const typed = figureOf(minutes.value, 'Minutes', long)
    if (typed === null) throw new Error('Minutes: say how long it flew, a plain number like 9.5')
    flown = typed
    back = figureOf(putBack.value, 'mAh put back', full)
  } catch (error) {
    wrong.value = error instanceof Error ? error.message : String(error)
    return
  }
  keepFlight({
    pack: pack.value,
    minutes: flown,
    put_back_mah: back,
    mass_g: told.value?.auw_g ? +told.value.auw_g.toFixed(1) : null,
    landing: landing.value,
    note: note.value.trim(),
    set_aside: null,
  })
  said.value = 'Flight kept'
  minutes.value = putBack.value = note.value = ''
  landing.value = null
  timer.clear()
}

const counts = computed(() => field.value?.told.counts)
const hours = (min: number) => (min < 90 ? `${fixed(min, 0)} min` : `${fixed(min / 60, 1)} h`)
const nameOf = (one: string) => packs.value.find((each) => each.id === one)?.name ?? one
const flights = computed(() => {
  const kept = build.value?.power?.flights ?? []
  const here = waiting.value.flatMap(({ entry }) =>
    entry.entry === 'flight' && !kept.some((each) => each.id === entry.id)
      ? [{ ...entry, waits: true }]
      : [],
  )
  return [...kept.map((each) => ({ ...each, waits: false })), ...here].reverse().slice(0, 40)
})
</script>

<template>
  <section aria-label="Flights">
    <div class="timer">
      <strong class="figure" role="timer">{{ timer.shown.value }}</strong>
      <v-btn class="press--main" @click="stop">{{
        timer.running.value ? 'Landed' : timer.ms.value ? 'Go on' : 'Off it goes'
      }}</v-btn>
      <v-btn v-if="timer.ms.value && !timer.running.value" @click="timer.clear()">Clear</v-btn>
    </div>
    <p v-if="!packs.length" class="faint">
      A flight is made with a pack:
      <router-link :to="{ name: 'power' }">list the drive</router-link>
      first. A glider's throws stand under Throw.
    </p>
    <form v-else aria-label="A flight" @submit.prevent="keep">
      <PickList v-model="pack" :items="named(packs)" label="pack" class="across" />
      <v-text-field v-model="minutes" label="minutes" inputmode="decimal" autocomplete="off" />
      <v-text-field v-model="putBack" label="mAh put back" inputmode="decimal" autocomplete="off" />
      <ChoiceButtons
        v-model="landing"
        class="across"
        :options="LANDINGS"
        label="Landing"
        :columns="3"
        optional
      />
      <v-text-field
        v-model="note"
        class="across"
        label="what was seen"
        maxlength="200"
        autocomplete="off"
      />
      <p v-if="landing === 'crash'" class="across small" role="note">
        Take the pack out, carry it away from anything that burns, and watch it; do not charge it
        again. Then
        <router-link :to="{ query: { on: 'repair' } }">write the repair down</router-link>.
      </p>
      <p v-if="wrong" class="wrong small across" role="alert">{{ wrong }}</p>
      <v-btn class="press--main across keep" type="submit">Keep this flight</v-btn>
    </form>
    <p class="small faint" role="status">{{ said }}</p>
    <p v-if="counts">
      <strong>{{ howMany(counts.flights, 'flight') }}</strong>, {{ hours(counts.minutes) }} on plane
      and motor<template v-if="counts.hard">, {{ counts.hard }} landed hard</template
      ><template v-if="counts.crashes">, {{ counts.crashes }} crashed</template
      ><template v-if="counts.throws">; {{ howMany(counts.throws, 'throw') }}</template
      >.
      <span v-for="each in counts.packs" :key="each.id" class="small faint">
        {{ nameOf(each.id) }}: {{ each.flights }}, {{ hours(each.minutes) }}.
      </span>
    </p>
    <ul aria-label="Flights, newest first">
      <li v-for="each in flights" :key="each.id" :class="{ gone: each.set_aside }">
        <span>
          {{ words.clock(each.at) }}, {{ nameOf(each.pack) }}:
          <span class="figure">{{ plainly(each.minutes) }}</span> min<template
            v-if="each.put_back_mah"
            >, <span class="figure">{{ each.put_back_mah }}</span> mAh</template
          ><template v-if="each.landing && each.landing !== 'soft'">, {{ each.landing }}</template
          ><template v-if="each.note">: {{ each.note }}</template>
          <small v-if="each.waits" class="sea"> waits</small>
        </span>
        <v-verb
          v-if="!each.waits"
          class="small faint"
          @click="setAside(each.id, each.set_aside ? null : 'wrong')"
        >
          {{ each.set_aside ? 'count it again' : 'set aside' }}
        </v-verb>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 14px;
  max-width: 640px;
}

.timer {
  display: flex;
  align-items: center;
  gap: 14px;
}

.timer strong {
  font-size: 44px;
  min-width: 132px;
}

.timer .v-btn,
.keep {
  min-height: 52px;
}

form {
  padding-top: 8px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}

.across {
  grid-column: 1 / -1;
}

li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  min-height: 40px;
  border-bottom: 1px solid var(--line);
}

.gone > span {
  text-decoration: line-through;
}

.sea {
  color: var(--sea);
}
</style>
