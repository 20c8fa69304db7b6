<script setup lang="ts">
import { computed, ref } from 'vue'
import { KIND_WORDS, lasting, stepTitle } from '../say/day'
import { once } from '../shared/once'
import QuantityCell from '../shared/QuantityCell.vue'
import { fixed } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import DayRow from './DayRow.vue'
import { useDay } from './useDay'

const { nameOf } = useBuild()
const {
  query, told, minutes, mine, taken, begin, done, undone, move, asReckoned, isMoved, add, drop,
} = useDay() // prettier-ignore

/** The ruler of the day ends where the hands do; glue that sets longer runs off it. */
const end = computed(() => Math.max(1, ...(told.value?.slots ?? []).map((slot) => slot.end_min)))
const names = (parts: string[]) => (parts.length > 1 ? parts.map(nameOf).join(', ') : '')
const named = computed(
  () => new Map((told.value?.slots ?? []).map((slot) => [slot.step.id, stepTitle(slot.step)])),
)
const doneSteps = computed(() => told.value?.done ?? [])
/** A step that is done is on no list any more: it goes by its id, as it was made. */
const doneTitle = (step: string) => {
  const [kind = '', ...rest] = step.split(':')
  return `${kind}${rest.length ? ` ${nameOf(rest.join(':')) || rest.join(':')}` : ''}`
}

const fresh = ref('')
const takes = ref(10)
const put = once(async () => {
  const step = fresh.value
  if (step.trim() && (await add(step.trim(), takes.value)) && fresh.value === step) fresh.value = ''
})
</script>

<template>
  <p v-if="query.isError.value" class="wrong">The order of the day does not come.</p>
  <p v-else-if="!told" class="faint" aria-busy="true">Putting the day in order …</p>
  <div v-else class="day">
    <section aria-label="Order of the day">
      <p v-if="!told.slots.length" class="faint">
        Nothing is left to do: every part was on a pan, every joint is glued, and it was balanced.
      </p>
      <p v-else class="small">
        Hands busy until <strong>{{ lasting(end) }}</strong> from now<template
          v-if="told.idle_min > 1"
          >, {{ lasting(told.idle_min) }} of it waiting</template
        >; all of it strong enough to handle in {{ lasting(told.total_min) }}. Solid: your hands;
        hatched: it sets.
        <v-verb v-if="isMoved" @click="asReckoned"> put it back in order </v-verb>
      </p>
      <p v-for="each in told.setting" :key="each.joint" class="small asked">
        {{ each.name }} sets for {{ lasting(each.minutes) }} more.
      </p>
      <ol>
        <DayRow
          v-for="slot in told.slots"
          :key="slot.step.id"
          :slotted="slot"
          :names="names(slot.step.parts)"
          :end="end"
          :doing="mine?.step === slot.step.id"
          :taken="taken"
          @begin="begin(slot.step.id)"
          @done="done(slot.step.id)"
          @move="move(slot.step.id, $event)"
          @drop="drop(slot.step.id)"
        />
      </ol>
    </section>
    <section aria-label="What now">
      <form class="now" @submit.prevent>
        <h3>
          What now, with
          <QuantityCell
            :value="minutes"
            kind="number"
            :least="1"
            :most="100000"
            label="Minutes that are left"
            :on-kept="(value) => (minutes = value ?? minutes)"
          />
          minutes?
        </h3>
      </form>
      <p v-if="!told.now.length" class="faint">
        Nothing that is free comes to an end in so short a time.
      </p>
      <ol v-else class="short" aria-label="In the minutes that are left">
        <li v-for="slot in told.now" :key="slot.step.id">
          {{ named.get(slot.step.id) ?? stepTitle(slot.step) }}
          <span class="faint small">{{ lasting(slot.minutes) }}</span>
        </li>
      </ol>
      <h3>A step of your own</h3>
      <form class="own" @submit.prevent="put">
        <v-text-field v-model="fresh" label="what is to be done" maxlength="80" />
        <QuantityCell
          :value="takes"
          kind="number"
          :least="1"
          :most="100000"
          label="Minutes that it takes"
          :on-kept="(value) => (takes = value ?? takes)"
        />
        <span class="faint small">min</span>
        <v-btn type="submit" :disabled="!fresh.trim()">Add it</v-btn>
      </form>
      <template v-if="told.paces.length">
        <h3>Your pace</h3>
        <p v-for="pace in told.paces" :key="pace.kind" class="small">
          {{ KIND_WORDS[pace.kind] }}: {{ fixed(pace.factor, 2) }} times the usual minutes, of
          {{ pace.times }} {{ pace.times === 1 ? 'step' : 'steps' }} timed
        </p>
      </template>
      <p v-else class="small faint">
        Minutes are usual ones. Press “begin” and “done”, and they become your own.
      </p>
      <template v-if="doneSteps.length">
        <h3>Done</h3>
        <p v-for="step in doneSteps" :key="step" class="small">
          {{ doneTitle(step) }}
          <v-verb @click="undone(step)">not yet</v-verb>
        </p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.day {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 3fr);
  gap: 36px;
}

section {
  display: grid;
  gap: 10px;
  align-content: start;
}

.now h3 :deep(.cell) {
  width: 62px;
}

.short li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  border-bottom: 1px solid var(--line);
  padding: 6px 0;
}

.own {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 62px max-content max-content;
  gap: 8px;
  align-items: center;
}

.own :deep(.cell) {
  width: 100%;
}

@media (max-width: 900px) {
  .day {
    grid-template-columns: minmax(0, 1fr);
  }

  .day > section:last-child {
    order: -1;
  }

  .own {
    grid-template-columns: minmax(0, 1fr) 62px max-content;
  }
}
</style>
