<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { Assessment, Damp, Lot, RackLot } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { fixed, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import LotChoice from './LotChoice.vue'
import SampleForm from './SampleForm.vue'
import { FACES, KINDS } from '../shared/useRack'
import PickList from '../shared/PickList.vue'
import { titled } from '../shared/choices'

const props = defineProps<{
  lot: Lot
  now?: Assessment['lots'][number]
  damp?: Damp
  builds: RackLot['builds']
  /** Told also where the place was left before a figure was read. */
  onDescribe: (patch: Partial<Lot>) => void
}>()
const emit = defineEmits<{ shelve: []; leave: [] }>()

const { build, setSeveralAside, id } = useBuild()
const { units, rate, perUnit } = useUnits()
/** How its constant is typed: "12 oz/sq ft" is understood, whatever is chosen. */
const asTyped = computed(() => {
  const { kind, unit, base, digits } = rate(props.lot.unit)
  return { kind, unit, base, digits }
})

const lot = toRef(props, 'lot')
const uses = computed(() =>
  (build.value?.parts ?? []).some((part) => part.uses.some((use) => use.lot === props.lot.id)),
)
const sampled = computed(() =>
  (build.value?.weighings ?? []).some((each) =>
    each.pan.samples.some((sample) => sample.lot === props.lot.id),
  ),
)
const elsewhere = computed(() => props.builds.filter((each) => each.build !== id.value))
const isSheet = computed(() => props.lot.unit === 'dm2')

const ADHESIVES = titled({
  '': 'no clock of its own',
  'hot-melt': 'hot-melt glue',
  epoxy: 'five-minute epoxy',
  contact: 'contact adhesive',
  cyanoacrylate: 'cyanoacrylate',
  polyurethane: 'polyurethane glue',
  white: 'white glue',
})

function day(at: string): string {
  return new Date(at).toLocaleDateString(undefined, { day: 'numeric', month: 'short' })
}

const BECAME = { as_it_was: 'as dry as it was', damp: 'damp', dried: 'it has dried' }
/** Of a lot that gained or dried, one day's samples go aside: which, why, and what is noted. */
const SETTLED = {
  as_it_was: [],
  damp: [
    { at: -1, title: 'the last, it will dry', reason: 'damp' },
    { at: 0, title: 'the first, it is cut as it is now', reason: 'from before it was damp' },
  ],
  dried: [
    { at: 0, title: 'the first, it was damp then', reason: 'damp' },
    { at: -1, title: 'the last, it was cut before it dried', reason: 'from after it dried' },
  ],
}
function settle({ at, reason }: (typeof SETTLED)['damp'][number]) {
  void setSeveralAside(props.damp?.sittings.at(at)?.weighings ?? [], reason)
}

const gain = computed(() => {
  const share = (props.damp?.gain ?? 0) * 100
  return `${share > 0 ? '+' : '−'}${fixed(Math.abs(share), 1)} %`
})
</script>

<template>
  <aside class="lot" :aria-label="lot.name">
    <h2>{{ lot.name }}</h2>
    <p class="figure now">
      {{ perUnit(now?.constant ?? lot.constant, lot.unit)
      }}<span class="faint">
        ±{{ perUnit(2 * (now?.sd ?? lot.doubt), lot.unit) }} {{ rate(lot.unit).name }}</span
      >
    </p>
    <SampleForm :lot="lot" />
    <div v-if="damp" class="damp" role="status">
      <p>
        <strong>{{ gain }}</strong> since {{ day(damp.sittings[0]!.at) }}
        <span class="faint small">(±{{ fixed(200 * damp.gain_sd, 1) }})</span>:
        {{ BECAME[damp.became] }}
      </p>
      <ol class="small faint figure">
        <li v-for="sitting in damp.sittings" :key="sitting.at">
          {{ day(sitting.at) }} {{ perUnit(sitting.constant, lot.unit) }} {{ rate(lot.unit).name }}
        </li>
      </ol>
      <p v-if="damp.sure" class="small">
        The forecast takes both until one goes aside:
        <template v-for="(way, k) in SETTLED[damp.became]" :key="way.title"
          >{{ k ? ' or ' : '' }}<v-verb @click="settle(way)"> {{ way.title }} </v-verb></template
        >
      </p>
    </div>
    <dl>
      <dt>stated</dt>
      <dd>
        <QuantityCell
          :value="lot.constant"
          v-bind="asTyped"
          :label="`${lot.name}, ${rate(lot.unit).name}`"
          @kept="$event !== null && onDescribe({ constant: $event })"
        />
        ±
        <QuantityCell
          :value="lot.doubt"
          v-bind="asTyped"
          :label="`${lot.name}, doubt`"
          @kept="$event !== null && onDescribe({ doubt: $event })"
        />
        <span class="faint small">{{ rate(lot.unit).name }}, one sigma</span>
      </dd>
      <dt>from</dt>
      <dd>
        <TextCell
          class="wide"
          :value="lot.source"
          label="Where the figure comes from"
          :most="200"
          @kept="onDescribe({ source: $event })"
        />
      </dd>
      <template v-if="lot.elsewhere">
        <dt>learned</dt>
        <dd>
          <span class="figure">{{ perUnit(lot.elsewhere.value, lot.unit) }}</span>
          <span class="faint small"
            >±{{ perUnit(2 * lot.elsewhere.doubt, lot.unit) }} in {{ lot.elsewhere.source }}</span
          >
        </dd>
      </template>
      <dt>kind</dt>
      <dd>
        <PickList
          :model-value="lot.kind"
          :items="KINDS"
          aria-label="Kind"
          @update:model-value="onDescribe({ kind: $event as Lot['kind'] })"
        />
        <PickList
          v-if="lot.kind === 'foam'"
          :items="titled(FACES)"
          :model-value="lot.faces ?? 'none'"
          aria-label="Papers"
          @update:model-value="onDescribe({ faces: $event as Lot['faces'] })"
        />
        <PickList
          v-if="lot.kind === 'adhesive'"
          :items="ADHESIVES"
          :model-value="lot.adhesive"
          aria-label="On the joint clock"
          @update:model-value="onDescribe({ adhesive: $event })"
        />
      </dd>
      <template v-if="lot.unit !== 'piece' && lot.holds_g === null">
        <dt>
          {{
            isSheet
              ? 'one sheet'
              : lot.kind === 'adhesive'
                ? 'one stick, as a bead'
                : 'one roll or rod'
          }}
        </dt>
        <dd>
          <QuantityCell
            :value="lot.length_mm"
            kind="length"
            :unit="units.length.name"
            :base="units.length.base"
            optional
            label="Length of one"
            @kept="onDescribe({ length_mm: $event })"
          />
          <template v-if="isSheet">
            ×
            <QuantityCell
              :value="lot.width_mm"
              kind="length"
              :unit="units.length.name"
              :base="units.length.base"
              optional
              label="Width of one"
              @kept="onDescribe({ width_mm: $event })"
            />
          </template>
          <span class="faint small">{{ units.length.name }}</span>
        </dd>
      </template>
      <dt>at hand</dt>
      <dd>
        <QuantityCell
          :value="lot.stock"
          kind="number"
          optional
          label="How many are at hand"
          @kept="onDescribe({ stock: $event })"
        />
        <span class="faint small">at</span>
        <QuantityCell
          :value="lot.price"
          kind="number"
          optional
          label="Price of one"
          @kept="onDescribe({ price: $event })"
        />
        <span class="faint small">each</span>
      </dd>
      <dt>with offcuts</dt>
      <dd>
        <span class="faint small">×</span>
        <QuantityCell
          :value="lot.waste"
          kind="number"
          optional
          label="Waste factor"
          @kept="onDescribe({ waste: $event })"
        />
        <span v-if="lot.waste === null" class="faint small">as usual for its kind</span>
      </dd>
    </dl>
    <LotChoice :lot="lot" :on-describe="onDescribe" />
    <p class="small faint foot">
      <template v-if="lot.rack"
        >On the rack: what is said here holds in every build<template v-if="elsewhere.length">
          ({{ elsewhere.map((each) => each.name).join(', ') }})</template
        >.</template
      >
      <v-verb v-else @click="emit('shelve')"> put it on the rack, for every build </v-verb>
      <v-verb v-if="!uses && !sampled" @click="emit('leave')"> take it out of this build </v-verb>
    </p>
  </aside>
</template>

<style scoped>
.lot {
  background: var(--paper);
  border: 1px solid var(--ink);
  padding: 14px 18px;
  display: grid;
  gap: 10px;
}

.now {
  font-size: 24px;
}

.now .faint {
  font-size: 15px;
}

dl {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 6px 10px;
  margin: 0;
  align-items: center;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}

dt {
  color: var(--faint);
  font-size: 13px;
}

dd {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}

dd :deep(.cell) {
  width: 70px;
}

.wide {
  width: 100%;
}

.damp {
  border-left: 4px solid var(--sea);
  padding: 2px 0 2px 10px;
  display: grid;
  gap: 4px;
}

ol {
  list-style: none;
  padding: 0;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0 16px;
}

.foot {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
</style>
