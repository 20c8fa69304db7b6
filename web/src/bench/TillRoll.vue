<script setup lang="ts">
import { howMany } from '../say/counts'
import { computed, ref } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import { panWords } from './panWords'
import RollLine from './RollLine.vue'
import RollRow from './RollRow.vue'
import { useBench } from './useBench'
import { useDoubts } from './useDoubts'

const SHOWN = 60

const { build } = useBuild()
const { doubts } = useDoubts()
const { readings, waiting, takeBack } = useBench()
const { quantity } = useUnits()
const all = ref(false)

const rows = computed(() =>
  all.value
    ? readings.value
    : readings.value.filter((each, at) => at < SHOWN || doubts.value.has(each.id)),
)

const lines = new Map<string, InstanceType<typeof RollLine>>()
function keep(id: string, line: unknown) {
  if (line) lines.set(id, line as InstanceType<typeof RollLine>)
  else lines.delete(id)
}

let seen = -1
/** Go to the next doubtful reading; false when there is none. */
function doubt(): boolean {
  const ids = [...doubts.value.keys()].filter((id) => lines.has(id))
  if (!ids.length) return false
  seen = (seen + 1) % ids.length
  lines.get(ids[seen] ?? '')?.go()
  return true
}
defineExpose({ doubt })
const aside = computed(() => readings.value.filter((each) => each.set_aside !== null).length)
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
        <RollRow
          v-for="reading in [...waiting].reverse()"
          :key="reading.id"
          class="waiting"
          when="…"
          :words="panWords(reading.pan, build)"
          :grams="reading.reading_g ? quantity(reading.reading_g, 'mass') : (reading.typed ?? '')"
        >
          <small>on its way to the log</small>
        </RollRow>
        <RollLine
          v-for="reading in rows"
          :ref="(at) => keep(reading.id, at)"
          :key="reading.id"
          :reading="reading"
          :doubt="doubts.get(reading.id)"
        />
      </TransitionGroup>
      <p v-if="!readings.length && !waiting.length" class="faint">
        No reading yet. Put a tag on the pan and record it; it comes out here.
      </p>
      <v-verb v-if="readings.length > SHOWN && !all" class="bare more" @click="all = true">
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

.more {
  display: block;
  font-size: 12px;
  line-height: 16px;
  padding: 6px 0;
  color: var(--faint);
  text-decoration: underline;
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
</style>
