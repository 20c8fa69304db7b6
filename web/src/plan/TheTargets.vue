<script setup lang="ts">
import { KINDS, METRICS } from '../say/metrics'
import { useBeginnings } from '../shared/useBeginnings'
import { computed } from 'vue'
import { answered, api, type Build, type Opened, type Target, type TargetKind } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { fixed, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { id, build, assessment, change, send } = useBuild()
const { units } = useUnits()

const beginnings = useBeginnings()

/** Another unit is the same range, converted; its source goes with it. */
function measureIn(unit: Target['balance_unit']) {
  void send((header) =>
    answered<Opened>(
      api.PUT('/api/v1/builds/{build_id}/balance-target/unit', {
        params: { path: { build_id: id.value }, header },
        body: { unit },
      }),
    ),
  )
}
const balanceUnit = computed(
  () =>
    build.value?.targets.find((target) => target.kind === 'balance')?.balance_unit ?? 'percent_mac',
)
const BALANCE_UNITS = [
  { value: 'percent_mac', title: '% MAC' },
  { value: 'mm_from_leading_edge', title: 'from leading edge' },
  { value: 'mm_from_nose', title: 'from nose' },
] as const

const rows = computed(() =>
  KINDS.map((kind) => {
    const { reads, shown, title, unit } = METRICS[kind]
    // A length is read in any unit of length, and shown in the one that is chosen.
    const isLength = kind === 'balance' && balanceUnit.value !== 'percent_mac'
    const told = shown ? units.value[shown] : isLength ? units.value.length : undefined
    return {
      kind,
      title,
      reads: isLength ? ('station' as const) : reads,
      unit: told,
      named: told?.name ?? unit,
      target: build.value?.targets.find((target) => target.kind === kind),
    }
  }),
)

function set(kind: TargetKind, end: 'low' | 'high', value: number | null, source?: string) {
  void send(
    (header) =>
      answered<Opened>(
        api.PUT('/api/v1/builds/{build_id}/targets/{kind}', {
          params: { path: { build_id: id.value, kind }, header },
          body: { end, value, ...(source ? { source } : {}) },
        }),
      ),
    () => `${METRICS[kind].title}, at ${end === 'low' ? 'least' : 'most'}`,
  )
}

const layout = computed(() =>
  beginnings.value?.layouts.find((each) => each.id === build.value?.layout),
)

function fill() {
  void send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/targets/suggested', {
        params: { path: { build_id: id.value }, header },
      }),
    ),
  )
}

/** What planes of this purpose usually have [W/kg]. */
const usual = computed(
  () => beginnings.value?.purposes.find((each) => each.id === build.value?.purpose)?.watts_per_kg,
)
function asUsual() {
  const [low = null, high] = usual.value ?? []
  set('power_loading', 'low', low, `rule of thumb: ${low} to ${high} W/kg are usual`)
}

function thrust(thrust_gf: number | null) {
  void send(
    (header) =>
      answered<Opened>(
        api.PUT('/api/v1/builds/{build_id}/thrust', {
          params: { path: { build_id: id.value }, header },
          body: { thrust_gf },
        }),
      ),
    () => 'Static thrust',
  )
}

type Thrust = NonNullable<Build['thrust']>
const line = (patch: Partial<Pick<Thrust, 'line_z_mm' | 'line_y_mm' | 'doubt_gf'>>) =>
  void change(({ thrust: old }) => ({ thrust: old && { ...old, ...patch } }))
</script>

<template>
  <section aria-label="Targets">
    <div class="head">
      <h2>Targets</h2>
      <label
        >for
        <PickList
          :model-value="build?.purpose"
          :items="named(beginnings?.purposes, 'not said')"
          aria-label="What it is for"
          @update:model-value="change(() => ({ purpose: $event }))"
      /></label>
      <label
        ><PickList
          :model-value="build?.layout"
          :items="named(beginnings?.layouts, 'not said')"
          aria-label="How it is laid out"
          @update:model-value="change(() => ({ layout: $event }))"
      /></label>
      <v-verb :disabled="!build?.purpose || !build?.layout" @click="fill"> fill from these </v-verb>
    </div>
    <div class="wide">
      <v-table>
        <thead class="faint">
          <tr>
            <th />
            <th>at least</th>
            <th>at most</th>
            <th />
            <th class="from">where it comes from</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.kind">
            <th scope="row">{{ row.title }}</th>
            <td>
              <QuantityCell
                :value="row.target?.low ?? null"
                :kind="row.reads"
                :label="`${row.title}, at least`"
                :unit="row.unit?.name"
                :base="row.unit?.base"
                optional
                @kept="set(row.kind, 'low', $event)"
              />
            </td>
            <td>
              <QuantityCell
                :value="row.target?.high ?? null"
                :kind="row.reads"
                :label="`${row.title}, at most`"
                :unit="row.unit?.name"
                :base="row.unit?.base"
                optional
                @kept="set(row.kind, 'high', $event)"
              />
            </td>
            <td class="unit">
              <PickList
                v-if="row.kind === 'balance'"
                :items="BALANCE_UNITS"
                :model-value="row.target?.balance_unit ?? 'percent_mac'"
                aria-label="Balance measured in"
                :disabled="!row.target"
                @update:model-value="measureIn($event as Target['balance_unit'])"
              />
              <template v-else>{{ row.named }}</template>
            </td>
            <td class="from faint">
              {{
                row.target?.source ??
                (row.kind === 'auw' ? 'none set; check the local legal limit' : 'none set')
              }}
            </td>
          </tr>
          <tr>
            <th scope="row">Static thrust</th>
            <td>
              <QuantityCell
                :value="build?.thrust?.thrust_gf ?? null"
                kind="thrust"
                label="Static thrust"
                :unit="units.thrust.name"
                :base="units.thrust.base"
                optional
                @kept="thrust"
              />
            </td>
            <td class="doubt">
              ±
              <QuantityCell
                :value="build?.thrust?.doubt_gf ?? null"
                kind="thrust"
                label="Doubt of the thrust, one sigma"
                :unit="units.thrust.name"
                :base="units.thrust.base"
                optional
                @kept="(doubt_gf) => line({ doubt_gf })"
              />
            </td>
            <td class="unit">{{ units.thrust.name }}</td>
            <td class="from faint">
              {{ build?.thrust?.source || 'full throttle; doubt is 10 % unless given'
              }}<template v-if="assessment?.power?.loadouts.length"
                >. A loadout with a pack of the drive has its own, from Power, of which this is one
                reading</template
              >
            </td>
          </tr>
          <tr v-if="build?.thrust">
            <th scope="row">Thrust line</th>
            <td>
              <QuantityCell
                :value="build.thrust.line_z_mm"
                kind="station"
                label="Height of the thrust line"
                :unit="units.length.name"
                :base="units.length.base"
                optional
                @kept="(line_z_mm) => line({ line_z_mm })"
              />
            </td>
            <td>
              <QuantityCell
                :value="build.thrust.line_y_mm"
                kind="station"
                label="Side of the thrust line"
                :unit="units.length.name"
                :base="units.length.base"
                optional
                @kept="(line_y_mm) => line({ line_y_mm })"
              />
            </td>
            <td class="unit">{{ units.length.name }} up, right</td>
            <td class="from faint">
              above the datum, and to starboard; tells what throttle does to pitch and swing
            </td>
          </tr>
        </tbody>
      </v-table>
    </div>
    <p
      v-if="usual && rows.some((row) => row.kind === 'power_loading' && !row.target)"
      class="small"
    >
      Power loading:
      <v-verb @click="asUsual"> at least {{ fixed(usual[0], 0) }}, as is usual </v-verb>
    </p>
    <p v-if="layout && !layout.chord_rule" class="wrong small">
      {{ layout.name }}: no chord rule says where it balances. Press a range on
      <router-link :to="{ name: 'balance', params: { id } }">Balance</router-link>, or give it here.
    </p>
    <p class="faint small">
      Registration, weight limits, where and how high one may fly: check with your local authority.
      This is arithmetic, not permission.
    </p>
  </section>
</template>

<style scoped>
section {
  max-width: 900px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: baseline;
  font-size: 13px;
}

.head .pick,
td .pick {
  --entry-height: 30px;
  font-size: 13px;
  max-width: 190px;
}

.v-table {
  margin: 10px 0;
  width: 100%;
  font-size: 14px;
}

th {
  text-align: left;
  font-weight: 600;
  white-space: nowrap;
}

thead th {
  font-weight: 400;
  font-size: 13px;
}

td,
th {
  padding: 3px 10px 3px 0;
}

td:nth-child(2),
td:nth-child(3) {
  width: 84px;
}

.doubt {
  white-space: nowrap;
}

.doubt :deep(.cell) {
  width: calc(100% - 18px);
}

.from {
  font-size: 13px;
  line-height: 1.25;
}

@media (max-width: 700px) {
  thead .from,
  td.from {
    display: none;
  }

  td .pick {
    max-width: 98px;
  }
}
</style>
