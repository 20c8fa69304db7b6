<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { Assessment, Damp, Lot, RackLot } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import DampSamples from './DampSamples.vue'
import LotAtHand from './LotAtHand.vue'
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

const { build, id } = useBuild()
const { rate, perUnit } = useUnits()
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

const ADHESIVES = titled({
  '': 'no clock of its own',
  'hot-melt': 'hot-melt glue',
  epoxy: 'five-minute epoxy',
  contact: 'contact adhesive',
  cyanoacrylate: 'cyanoacrylate',
  polyurethane: 'polyurethane glue',
  white: 'white glue',
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
    <DampSamples v-if="damp" :lot="lot" :damp="damp" />
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
      <LotAtHand :lot="lot" :on-describe="onDescribe" />
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

/* All that is said of it, in its parts as well. */
.lot :deep(dl) {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 6px 10px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}

.lot :deep(dt) {
  color: var(--faint);
  font-size: 13px;
}

.lot :deep(dd) {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}

.lot :deep(dd .cell) {
  width: 70px;
}

.wide {
  width: 100%;
}

.foot {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
</style>
