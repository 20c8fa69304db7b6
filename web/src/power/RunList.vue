<script setup lang="ts">
import { computed } from 'vue'
import type { RunPoint } from '../api/client'
import { useUnits } from '../shared/units'
import RunHeat from './RunHeat.vue'
import RunPoints from './RunPoints.vue'
import { useDrive } from './useDrive'

const { drive, told, setAside } = useDrive()
const { number, units } = useUnits()

const nameOf = (kind: 'packs' | 'propellers', of: string) =>
  drive.value?.[kind].find((each) => each.id === of)?.name ?? of
const runs = computed(() =>
  [...(drive.value?.runs ?? [])].reverse().map((run) => ({
    ...run,
    day: new Date(run.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' }),
    with: `${nameOf('packs', run.pack)}, ${nameOf('propellers', run.propeller)}`,
    most: Math.max(0, ...run.points.map((each) => (each.thrust_gf ?? 0) * run.lever)),
    other: nameOf(
      'propellers',
      (told.value?.others ?? []).find((each) => each.run === run.id)?.propeller ?? '',
    ),
    doubts: (told.value?.doubts ?? []).filter((each) => each.run === run.id),
  })),
)
const statedOff = computed(() => told.value?.doubts.some((each) => each.run === 'stated'))
type Doubt = NonNullable<typeof told.value>['doubts'][number]
function why(run: { points: RunPoint[] }, doubt: Doubt): string {
  const point = run.points[doubt.point]
  const at = point ? `at ${Math.round(100 * point.throttle)} %` : ''
  const what = { thrust: 'thrust', current: 'current', voltage: 'voltage' }[doubt.quantity]
  if (doubt.slip === 'ounces' && doubt.would_be !== null)
    return (
      `the ${what} ${at} was read in ounces? It would be ` +
      `${number(doubt.would_be, 'thrust')} ${units.value.thrust.name}`
    )
  if (doubt.slip === 'other_throttle' && doubt.would_be !== null)
    return `the point ${at} fits ${Math.round(100 * doubt.would_be)} % throttle`
  return `the ${what} ${at} is far from what the others say`
}
</script>

<template>
  <div>
    <ul v-if="runs.length" aria-label="Runs">
      <li v-for="run in runs" :key="run.id" :class="{ gone: run.set_aside !== null }">
        <span>
          <strong>{{ run.day }}</strong>, {{ run.with }}:
          <span class="figure">{{ run.points.length }}</span>
          {{ run.points.length === 1 ? 'point' : 'points' }}, up to
          <span class="figure">{{ number(run.most, 'thrust') }}</span> {{ units.thrust.name }}
        </span>
        <p v-for="(doubt, at) in run.doubts" :key="at" class="warns small" role="note">
          Not believed: {{ why(run, doubt) }}.
        </p>
        <p v-if="run.other" class="warns small" role="note">
          It looks like {{ run.other }}: that explains the run far better.
        </p>
        <RunHeat :run="run" />
        <RunPoints :run="run" />
        <v-verb
          class="small faint"
          @click="setAside(run.id, run.set_aside === null ? 'wrong' : null)"
        >
          {{ run.set_aside === null ? 'set aside' : 'count it again' }}
        </v-verb>
      </li>
    </ul>
    <p v-if="statedOff" class="warns small" role="note">
      The thrust stated on the Plan is far from what the runs say; it is not believed here.
    </p>
    <p v-if="!runs.length" class="small faint">
      No run yet: all below is a guess by listing and size, and what the Plan states. The kitchen
      scale will do as a stand: plane nose down on the pan, and the change of the reading is the
      thrust.
    </p>
  </div>
</template>

<style scoped>
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  font-size: 14px;
}

.gone > span {
  text-decoration: line-through;
}
</style>
