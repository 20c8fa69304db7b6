<script setup lang="ts">
import { howMany } from '../say/counts'
import { computed, ref } from 'vue'
import type { Weighing } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import DoubtNote from './DoubtNote.vue'
import { panWords } from './panWords'
import { useBench } from './useBench'
import { useDoubts } from './useDoubts'

const SHOWN = 60

const { build, setAside, accept, news, nameOf } = useBuild()
const { doubts } = useDoubts()
const { readings, waiting, takeBack } = useBench()
const { quantity, number } = useUnits()
const all = ref(false)

const rows = computed(() =>
  all.value
    ? readings.value
    : readings.value.filter((each, at) => at < SHOWN || doubts.value.has(each.id)),
)

const notes = new Map<string, InstanceType<typeof DoubtNote>>()
function keep(id: string, note: unknown) {
  if (note) notes.set(id, note as InstanceType<typeof DoubtNote>)
  else notes.delete(id)
}

let seen = -1
/** Go to the next doubtful reading; false when there is none. */
function doubt(): boolean {
  const ids = [...doubts.value.keys()].filter((id) => notes.has(id))
  if (!ids.length) return false
  seen = (seen + 1) % ids.length
  notes.get(ids[seen] ?? '')?.go()
  return true
}
defineExpose({ doubt })
const aside = computed(() => readings.value.filter((each) => each.set_aside !== null).length)

function time(at: string): string {
  return new Date(at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false })
}

/** What a reading moved besides the thing that was weighed. */
function moved(reading: Weighing): string[] {
  return (news.value.get(reading.id) ?? []).map((each) => {
    if (each.part) {
      const after = quantity(each.after, 'mass')
      return `${nameOf(each.part)} came to ${after}, not ${number(each.before, 'mass')}`
    }
    const lot = build.value?.lots.find((known) => known.id === each.lot)?.name
    const change = (each.after / each.before - 1) * 100
    const parts = each.made_of_it === 1 ? '1 part' : `${each.made_of_it} parts`
    return `${lot}: moved ${parts} by ${change > 0 ? '+' : '−'}${fixed(Math.abs(change), 0)} %`
  })
}

function toggle(reading: Weighing) {
  void setAside(reading.id, reading.set_aside === null ? 'set aside by hand' : null)
}
</script>

<template>
  <section aria-label="Till roll">
    <div class="paper">
      <div class="head">
        <h2>Till roll</h2>
        <span class="faint"
          >{{ howMany(readings.length, 'reading')
          }}<template v-if="aside">, {{ aside }} set aside</template></span
        >
        <span v-if="doubts.size" class="wrong flag"
          >{{ doubts.size === 1 ? 'one is doubtful' : `${doubts.size} are doubtful` }}
          <kbd>D</kbd></span
        >
      </div>
      <TransitionGroup name="roll" tag="ol">
        <li v-for="reading in [...waiting].reverse()" :key="reading.id" class="waiting">
          <span class="figure when">…</span>
          <span class="what"
            >{{ panWords(reading.pan, build) }}<small>on its way to the log</small></span
          >
          <span class="figure grams">{{
            reading.reading_g ? quantity(reading.reading_g, 'mass') : reading.typed
          }}</span>
        </li>
        <li
          v-for="reading in rows"
          :key="reading.id"
          :class="{ aside: reading.set_aside !== null, doubtful: doubts.has(reading.id) }"
        >
          <span class="figure when faint">{{ time(reading.at) }}</span>
          <span class="what">
            <span class="words">{{ panWords(reading.pan, build) }}</span>
            <small v-if="reading.set_aside !== null">{{ reading.set_aside || 'set aside' }}</small>
            <small v-for="words in moved(reading)" :key="words">{{ words }}</small>
            <small v-if="reading.corrects">{{ reading.note }}</small>
            <small v-if="reading.accepted"
              >doubted, and right
              <v-verb @click="accept(reading.id, false)"> doubt it </v-verb></small
            >
            <small v-if="reading.typed">typed “{{ reading.typed }}”</small>
          </span>
          <span class="figure grams">{{ quantity(reading.reading_g, 'mass') }}</span>
          <button type="button" class="plainly act" @click="toggle(reading)">
            {{ reading.set_aside === null ? 'set aside' : 'use again' }}
          </button>
          <DoubtNote
            v-if="doubts.has(reading.id)"
            :ref="(note) => keep(reading.id, note)"
            :doubt="doubts.get(reading.id)!"
          />
        </li>
      </TransitionGroup>
      <p v-if="!readings.length && !waiting.length" class="faint">
        No reading yet. Put a tag on the pan and record it; it comes out here.
      </p>
      <v-verb v-if="readings.length > SHOWN && !all" class="bare act more" @click="all = true">
        show all {{ readings.length }}
      </v-verb>
      <v-verb class="bare foot faint" @click="takeBack"> <kbd>U</kbd> takes back the last </v-verb>
    </div>
  </section>
</template>

<style scoped>
section {
  padding: 0 16px 24px 8px;
}

.paper {
  background: var(--paper);
  padding: 12px 14px 26px;
  filter: drop-shadow(0 2px 3px rgb(0 0 0 / 16%));
  clip-path: polygon(
    0 0,
    100% 0,
    100% calc(100% - 9px),
    95% 100%,
    90% calc(100% - 9px),
    85% 100%,
    80% calc(100% - 9px),
    75% 100%,
    70% calc(100% - 9px),
    65% 100%,
    60% calc(100% - 9px),
    55% 100%,
    50% calc(100% - 9px),
    45% 100%,
    40% calc(100% - 9px),
    35% 100%,
    30% calc(100% - 9px),
    25% 100%,
    20% calc(100% - 9px),
    15% 100%,
    10% calc(100% - 9px),
    5% 100%,
    0 calc(100% - 9px)
  );
}

.head {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  justify-content: space-between;
  align-items: baseline;
  padding-bottom: 8px;
  border-bottom: 3px dotted var(--faint);
  font-size: 13px;
}

ol {
  list-style: none;
  padding: 0;
  margin: 0;
}

li {
  display: grid;
  grid-template-columns: 46px minmax(0, 1fr) auto;
  gap: 0 6px;
  padding: 7px 0 5px;
  border-bottom: 1px solid var(--line);
  align-items: baseline;
  position: relative;
}

.when {
  font-size: 13px;
}

.what {
  line-height: 1.3;
  font-size: 14px;
}

small {
  display: block;
  font-size: 12px;
  color: var(--faint);
}

.grams {
  font-weight: 700;
  font-size: 15px;
}

.act {
  position: absolute;
  right: 0;
  bottom: 1px;
  font-size: 12px;
  line-height: 16px;
  padding: 0 0 0 6px;
  background: var(--paper);
  color: var(--faint);
  text-decoration: underline;
  opacity: 0;
}

li:hover .act,
.act:focus-visible,
.more {
  opacity: 1;
}

.aside .act {
  opacity: 1;
}

.more {
  position: static;
}

.aside .words,
.aside .grams {
  text-decoration: line-through;
  color: var(--faint);
  font-weight: 500;
}

.waiting {
  background: var(--sea-wash);
}

.foot {
  margin-top: 10px;
  font-size: 13px;
}

.roll-enter-active {
  transition: 0.25s ease-out;
}

.roll-enter-from {
  opacity: 0;
  transform: translateY(-18px);
}

@media (max-width: 1000px) {
  section {
    padding: 8px 12px 24px;
  }
}

@media (hover: none) {
  .act {
    opacity: 1;
    position: static;
    grid-column: 2 / -1;
    justify-self: end;
    padding: 6px 0;
  }
}
</style>
