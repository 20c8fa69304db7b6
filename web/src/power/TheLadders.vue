<script setup lang="ts">
import { computed } from 'vue'
import limits from '../api/limits.json'
import { MISSING } from '../say/metrics'
import { useBuild } from '../shared/useBuild'
import { fixed, plainly } from '../shared/units'
import LadderRow from './LadderRow.vue'
import { useDrive } from './useDrive'
import { useLadders } from './useLadders'

const { mine, rows, cells, heat, missing } = useLadders()
const { lacks } = useDrive()
const { loadout } = useBuild()

const figures = computed(() => {
  const fresh = mine.value?.fresh
  if (!fresh) return []
  const loading = loadout.value?.answers.find((each) => each.kind === 'power_loading')
  return [
    { title: 'current', value: fresh.pack_a, sd: fresh.pack_sd_a, digits: 1, unit: 'A' },
    { title: 'voltage', value: fresh.pack_v, sd: fresh.pack_sd_v, digits: 1, unit: 'V' },
    { title: 'power', value: fresh.power_w, sd: fresh.power_sd_w, digits: 0, unit: 'W' },
    {
      title: 'power loading',
      value: mine.value?.watts_per_kg ?? null,
      sd: loading?.sd ?? null,
      digits: 0,
      unit: 'W/kg',
    },
  ].flatMap(({ value, ...each }) => (value === null ? [] : [{ value, ...each }]))
})
</script>

<template>
  <section aria-label="At full throttle">
    <h2>At full throttle</h2>
    <template v-if="mine">
      <p class="small faint">
        A fresh pack, at rest {{ plainly(limits.drive.full_v_per_cell) }} V a cell{{
          mine.fresh.known === 'guess' ? '; a guess until it ran on a stand' : ''
        }}.
      </p>
      <dl class="figures">
        <template v-for="each in figures" :key="each.title">
          <dt>{{ each.title }}</dt>
          <dd class="figure">
            {{ fixed(each.value, each.digits)
            }}<small class="faint"
              ><template v-if="each.sd !== null"> ±{{ fixed(2 * each.sd, each.digits) }}</template>
              {{ each.unit }}</small
            >
          </dd>
        </template>
      </dl>
      <ul>
        <LadderRow v-for="row in rows" :key="row.part" :row="row" :share="row.share" />
      </ul>
      <ul v-if="cells.length || heat.length" class="more">
        <LadderRow v-for="row in [...cells, ...heat]" :key="row.title" :row="row" />
      </ul>
      <p v-if="missing.length" class="small faint">
        No ladder yet for {{ missing.join(', ') }}: nobody said what it stands.
      </p>
    </template>
    <p v-else-if="lacks" class="faint small">To tell it: {{ MISSING[lacks] }}.</p>
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--ink);
  padding-top: 14px;
}

.figures {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: baseline;
  gap: 2px 12px;
  margin: 8px 0 12px;
}

dt {
  font-size: 13px;
  color: var(--faint);
}

dd {
  font-size: 19px;
  text-align: right;
  white-space: nowrap;
}

dd small {
  font-size: 13px;
}

ul {
  display: grid;
  gap: 10px;
}

.more {
  margin-top: 10px;
}
</style>
