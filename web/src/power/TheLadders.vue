<script setup lang="ts">
import { fixed, plainly } from '../shared/units'
import { computed } from 'vue'
import { useDrive } from './useDrive'

const { drive, mine } = useDrive()

const TITLES = {
  motor: 'Motor',
  controller: 'Controller, continuous',
  burst: 'Controller, burst',
  pack: 'Pack',
  plug: 'Plug',
  wire: 'Wire',
  regulator: 'Regulator',
}
const rows = computed(() =>
  (mine.value?.margins ?? []).map((each) => {
    const percent = Math.round(100 * Math.abs(each.share - 1))
    return {
      ...each,
      title: TITLES[each.part],
      words:
        each.rung === 'over'
          ? (percent ? `over what it stands by ${percent} %` : 'just over what it stands') +
            (each.part === 'controller' ? ': in bursts only, if it has them' : '')
          : each.rung === 'little in hand' && each.part !== 'burst'
            ? `${percent} % in hand: feel it after 20 s`
            : `${percent} % in hand`,
    }
  }),
)
const cells = computed(() =>
  (mine.value?.cells ?? []).map((each) => {
    const least = each.least ?? 1
    const range =
      each.most === null
        ? `${least} or more`
        : least === each.most
          ? `${least}`
          : `${least} to ${each.most}`
    return {
      ...each,
      title: `${TITLES[each.part].split(',')[0]}, cells`,
      words: each.rung === 'over' ? `made for ${range}: not for this pack` : `made for ${range}`,
    }
  }),
)
const heat = computed(() =>
  (mine.value?.heat ?? []).map((each) => ({
    ...each,
    title: `${TITLES[each.part].split(',')[0]}, warm`,
    words:
      (each.rung === 'over'
        ? 'too hot to go on with'
        : each.rung === 'in hand'
          ? 'in hand'
          : 'feel it after 20 s') +
      `; ${fixed(each.felt_c, 0)} °C was felt at ${fixed(each.felt_a, 1)} A`,
  })),
)
const missing = computed(() => {
  const lacks = []
  if (!drive.value?.controller) lacks.push('the controller')
  if (drive.value?.motor.most_a == null) lacks.push('the motor')
  const pack = drive.value?.packs.find((each) => each.id === mine.value?.pack)
  if (pack && pack.c_rating === null) lacks.push('the pack (its C)')
  return lacks
})
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
        <li v-for="row in rows" :key="row.part" :data-rung="row.rung">
          <span class="head">
            <span>{{ row.title }}</span>
            <span class="figure">{{ fixed(row.current_a, 1) }} of {{ plainly(row.most_a) }} A</span>
          </span>
          <span class="ladder" aria-hidden="true">
            <span class="care" />
            <span class="now" :style="{ width: `${Math.min(row.share, 1.25) * 80}%` }" />
            <span class="rung" />
          </span>
          <span class="small" :class="row.rung === 'over' ? 'wrong' : 'faint'"
            >{{ row.words
            }}<template v-if="row.seconds"
              >, for {{ plainly(row.seconds) }} s at most</template
            ></span
          >
        </li>
      </ul>
      <ul v-if="cells.length || heat.length" class="more">
        <li v-for="row in cells" :key="`cells ${row.part}`" :data-rung="row.rung">
          <span class="head">
            <span>{{ row.title }}</span><span class="figure">{{ row.cells }}</span>
          </span>
          <span class="small" :class="row.rung === 'over' ? 'wrong' : 'faint'">{{
            row.words
          }}</span>
        </li>
        <li v-for="row in heat" :key="`heat ${row.part}`" :data-rung="row.rung">
          <span class="head">
            <span>{{ row.title }}</span>
            <span class="figure">{{ fixed(row.celsius, 0) }} ±{{ fixed(2 * row.sd_c, 0) }} °C</span>
          </span>
          <span class="small" :class="row.rung === 'over' ? 'wrong' : 'faint'">{{
            row.words
          }}</span>
        </li>
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

li {
  display: grid;
  gap: 3px;
  font-size: 14px;
}

.more {
  margin-top: 10px;
}

.head {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}

.head .figure {
  white-space: nowrap;
}

.ladder {
  position: relative;
  height: 10px;
  background: var(--line);
}

.care {
  position: absolute;
  left: 64%;
  width: 16%;
  height: 100%;
  background: var(--brass);
  opacity: 0.45;
}

.now {
  position: absolute;
  top: 3px;
  height: 4px;
  background: var(--sea);
}

li[data-rung='over'] .now {
  background: var(--rust);
}

.rung {
  position: absolute;
  left: 80%;
  top: -3px;
  width: 3px;
  height: 16px;
  background: var(--ink);
}
</style>
