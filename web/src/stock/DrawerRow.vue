<script setup lang="ts">
import type { DrawerThing, NewThing } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import TheMark from '../shared/TheMark.vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import DriveListing from './DriveListing.vue'
import { THINGS, useDrawer } from './useDrawer'

/** A thing of the drawer: its listing, what it was found to weigh, and the planes that it sits in. */
const props = defineProps<{ each: DrawerThing }>()

const { id } = useBuild()
const { describe, takeOut, fit } = useDrawer()
const { number, units } = useUnits()

const title = (kind: NewThing['kind']) => THINGS.find((one) => one.value === kind)?.title ?? kind
const isHere = () => props.each.builds.some((where) => where.build === id.value)
const isElsewhere = () => props.each.builds.some((where) => where.build !== id.value)

function say(patch: Partial<NewThing>) {
  void describe(props.each.thing.id, patch)
}
</script>

<template>
  <tr :data-thing="each.thing.id">
    <td>
      <strong>{{ each.thing.name }}</strong>
    </td>
    <td class="faint">
      {{ title(each.thing.kind) }}
      <DriveListing
        v-if="each.thing.kind === 'pack' || each.thing.kind === 'motor'"
        :thing="each.thing"
        @said="say($event)"
      />
    </td>
    <td>
      <QuantityCell
        :value="each.thing.listing_g"
        kind="mass"
        :unit="units.mass.name"
        :base="units.mass.base"
        :label="`${each.thing.name}, listing`"
        @kept="$event !== null && say({ listing_g: $event })"
      />
    </td>
    <td>
      <v-checkbox-btn
        :model-value="each.thing.leads_included"
        :aria-label="`${each.thing.name}: the listing counts its leads`"
        @update:model-value="say({ leads_included: $event })"
      />
    </td>
    <td class="right">
      <TheMark :mark="each.weighed ? 'weighed' : 'listed'" />
      <span class="figure"
        >{{ number(each.now.value, 'mass') }}
        <span class="faint">±{{ number(2 * each.now.doubt, 'mass') }}</span></span
      >
    </td>
    <td>
      <QuantityCell
        :value="each.thing.price"
        kind="number"
        optional
        :label="`${each.thing.name}, price`"
        @kept="say({ price: $event })"
      />
    </td>
    <td>
      <span v-if="!each.builds.length" class="faint">the drawer</span>
      <template v-for="(where, at) in each.builds" :key="where.build + where.id"
        ><template v-if="at">, </template
        ><router-link :to="{ name: 'plan', params: { id: where.build } }">{{
          where.build === id ? 'this plane' : where.name
        }}</router-link></template
      >
    </td>
    <td class="acts small">
      <template v-if="!isHere()">
        <v-verb @click="fit(each.thing.id, isElsewhere())">
          {{ isElsewhere() ? 'move it here' : 'fit it' }}
        </v-verb>
        <v-verb v-if="isElsewhere()" @click="fit(each.thing.id, false)"> share it </v-verb>
      </template>
      <v-verb v-if="!each.builds.length" class="faint" @click="takeOut(each.thing.id)">
        throw out
      </v-verb>
    </td>
  </tr>
</template>

<style scoped>
td :deep(.cell) {
  width: 74px;
}
.right :deep(.mark) {
  width: 15px;
  vertical-align: -4px;
  margin-right: 4px;
}

.acts button {
  margin-right: 12px;
}

a {
  color: inherit;
}
</style>
