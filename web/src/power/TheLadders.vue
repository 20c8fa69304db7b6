<script setup lang="ts">
import { fixed, plainly } from '../shared/units'
import LadderRow from './LadderRow.vue'
import { useLadders } from './useLadders'

const { mine, rows, cells, heat, missing } = useLadders()
</script>

<template>
  <section aria-label="At full throttle">
    <h2>At full throttle</h2>
    <template v-if="mine">
      <p class="small faint">A fresh pack, at rest {{ plainly(4.2) }} V a cell.</p>
      <dl class="figures">
        <div>
          <dt>current</dt>
          <dd class="figure">
            {{ fixed(mine.fresh.pack_a, 1)
            }}<small class="faint"> ±{{ fixed(2 * mine.fresh.pack_sd_a, 1) }} A</small>
          </dd>
        </div>
        <div>
          <dt>voltage</dt>
          <dd class="figure">{{ fixed(mine.fresh.pack_v, 1) }}<small class="faint"> V</small></dd>
        </div>
        <div>
          <dt>power</dt>
          <dd class="figure">{{ fixed(mine.fresh.power_w, 0) }}<small class="faint"> W</small></dd>
        </div>
        <div v-if="mine.watts_per_kg !== null">
          <dt>power loading</dt>
          <dd class="figure">
            {{ fixed(mine.watts_per_kg, 0) }}<small class="faint"> W/kg</small>
          </dd>
        </div>
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
    <p v-else class="faint small">This loadout carries no pack of the drive.</p>
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--ink);
  padding-top: 14px;
}

.figures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 12px;
  margin: 8px 0 12px;
}

dt {
  font-size: 13px;
  color: var(--faint);
}

dd {
  margin: 0;
  font-size: 19px;
}

dd small {
  font-size: 13px;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
}

.more {
  margin-top: 10px;
}
</style>
