<script setup lang="ts">
import { KINDS } from '../say/metrics'
import { useBeginnings } from '../shared/useBeginnings'
import { computed } from 'vue'
import { answered, api, type Opened } from '../api/client'
import { fixed } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'
import TargetRow from './TargetRow.vue'
import ThrustRows from './ThrustRows.vue'
import { useTarget } from './useTarget'

const { id, build, change, send } = useBuild()
const { aim } = useTarget()

const beginnings = useBeginnings()

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
const aimsAtPower = computed(() =>
  build.value?.targets.some((target) => target.kind === 'power_loading'),
)
function asUsual() {
  const [low = null, high] = usual.value ?? []
  aim('power_loading', 'low', low, `rule of thumb: ${low} to ${high} W/kg are usual`)
}
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
          <TargetRow v-for="kind in KINDS" :key="kind" :kind="kind" />
          <ThrustRows />
        </tbody>
      </v-table>
    </div>
    <p v-if="usual && !aimsAtPower" class="small">
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

.head .pick {
  --entry-height: 30px;
  font-size: 13px;
  max-width: 190px;
}

.v-table {
  margin: 10px 0;
  width: 100%;
  font-size: 14px;
}

/* Its rows are parts of their own. */
.v-table :deep(th) {
  text-align: left;
  font-weight: 600;
  white-space: nowrap;
}

.v-table :deep(thead th) {
  font-weight: 400;
  font-size: 13px;
}

.v-table :deep(:is(td, th)) {
  padding: 3px 10px 3px 0;
}

.v-table :deep(:is(td:nth-child(2), td:nth-child(3))) {
  width: 84px;
}

.v-table :deep(.from) {
  font-size: 13px;
  line-height: 1.25;
}

@media (max-width: 700px) {
  .v-table :deep(.from) {
    display: none;
  }
}
</style>
