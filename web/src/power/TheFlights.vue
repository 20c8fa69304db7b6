<script setup lang="ts">
import { MISSING } from '../say/metrics'
import { once } from '../shared/once'
import { sent } from '../shared/sent'
import { fixed } from '../shared/units'
import { computed, reactive, ref } from 'vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { useBuild } from '../shared/useBuild'
import { understand, whyNot } from '../shared/useQuantity'
import { useDrive } from './useDrive'

const { drive, told, mine, lacks, set, addFlight, setFlightAside } = useDrive()
const { loadout } = useBuild()

const typed = reactive({ minutes: '', putBack: '' })
const wrong = ref('')

const keep = once(async () => {
  wrong.value = ''
  const anew = sent(typed)
  try {
    const flown = await understand(typed.minutes, 'number')
    if (flown <= 0) throw new Error('Minutes: say how long it flew')
    const back = typed.putBack.trim() ? await understand(typed.putBack, 'number') : null
    if (await addFlight(flown, back)) anew({ minutes: '', putBack: '' })
  } catch (error) {
    wrong.value = whyNot(error)
  }
})

const nameOf = (pack: string) => drive.value?.packs.find((each) => each.id === pack)?.name ?? pack
const flights = computed(() =>
  [...(drive.value?.flights ?? [])].reverse().map((each) => ({
    ...each,
    day: new Date(each.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' }),
  })),
)
const tired = computed(() => told.value?.tired ?? [])
</script>

<template>
  <section aria-label="Minutes">
    <header>
      <h2>Minutes</h2>
      <strong v-if="mine?.minutes != null" class="figure">
        {{ fixed(mine.minutes, 1) }}
        <small class="faint">±{{ fixed(2 * (mine.minutes_sd ?? 0), 1) }}</small>
      </strong>
    </header>
    <p v-if="mine" class="small faint">
      {{ loadout?.name }}, {{ nameOf(mine.pack) }}:
      {{
        mine.flights
          ? `as ${mine.flights} ${mine.flights === 1 ? 'flight' : 'flights'} found it`
          : 'a guess by layout until it is flown'
      }}<template v-if="mine.level_w !== null"
        >; level flight takes about {{ fixed(mine.level_w, 0) }} W</template
      >.
    </p>
    <p v-else-if="lacks" class="small faint">To tell them: {{ MISSING[lacks] }}.</p>
    <p v-for="each in tired" :key="each.pack" class="warns small" role="note">
      {{ nameOf(each.pack) }} is tired: its minutes fell by {{ Math.round(100 * each.fell) }} % over
      {{ each.flights }} flights. Feel it for puffing before it is charged again.
    </p>
    <form v-if="mine" @submit.prevent="keep">
      <v-text-field
        v-model="typed.minutes"
        label="Minutes flown"
        inputmode="decimal"
        autocomplete="off"
        hide-details
      />
      <v-text-field
        v-model="typed.putBack"
        label="mAh put back"
        inputmode="decimal"
        autocomplete="off"
        hide-details
      />
      <v-btn class="press--main" type="submit">Write it down</v-btn>
    </form>
    <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
    <p class="small faint" role="note">
      Charge it attended, on a fire-safe surface, at its own cell count; never a puffed or crashed
      one.
    </p>
    <p class="small mix">
      <QuantityCell
        :value="100 * (drive?.full_share ?? 0.2)"
        kind="number"
        label="Share of a flight at full throttle, per cent"
        :least="0"
        :most="100"
        :digits="0"
        @kept="(percent) => percent !== null && void set({ full_share: percent / 100 })"
      />
      % of the time at full throttle; level at
      <QuantityCell
        :value="drive?.level_throttle == null ? null : 100 * drive.level_throttle"
        kind="number"
        label="The throttle that held level, per cent"
        :least="1"
        :most="100"
        optional
        :digits="0"
        @kept="
          (percent) =>
            void set({
              level_throttle: percent === null ? null : percent / 100,
            })
        "
      />
      % throttle, if you know it.
    </p>
    <ul v-if="flights.length" aria-label="Flights">
      <li v-for="each in flights" :key="each.id" :class="{ gone: each.set_aside !== null }">
        <span>
          {{ each.day }}, {{ nameOf(each.pack) }}:
          <span class="figure">{{ each.minutes }}</span> min<template
            v-if="each.put_back_mah !== null"
            >, <span class="figure">{{ each.put_back_mah }}</span> mAh put back</template
          >
        </span>
        <v-verb
          class="small faint"
          @click="setFlightAside(each.id, each.set_aside === null ? 'wrong' : null)"
        >
          {{ each.set_aside === null ? 'set aside' : 'count it again' }}
        </v-verb>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section,
form {
  display: grid;
  gap: 10px;
}

section {
  max-width: 560px;
}

header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

header strong {
  font-size: 30px;
}

form {
  grid-template-columns: 1fr 1fr auto;
  align-items: center;
}

.mix :deep(.cell) {
  width: 56px;
}

li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  font-size: 14px;
}

.gone > span {
  text-decoration: line-through;
}

@media (max-width: 600px) {
  form {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
