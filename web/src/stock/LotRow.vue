<script setup lang="ts">
import { computed } from 'vue'
import type { Assessment, Lot } from '../api/client'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import LotPicture from './LotPicture.vue'
import { FACES } from '../shared/useRack'

const props = defineProps<{ lot: Lot; now?: Assessment['lots'][number]; chosen: boolean }>()
defineEmits<{ choose: [] }>()

const { build } = useBuild()
const { quantity, rate, perUnit } = useUnits()

const SHOWN = { dm2: 'area', m: 'run', piece: 'mass' } as const

const used = computed(() =>
  (build.value?.parts ?? [])
    .flatMap((part) => (part.retired ? [] : part.uses))
    .filter((use) => use.lot === props.lot.id)
    .reduce((sum, use) => sum + use.amount, 0),
)
const weighed = computed(
  () =>
    (props.now?.sd ?? Infinity) < props.lot.doubt / 2 ||
    build.value?.weighings.some(
      (each) =>
        each.set_aside === null && each.pan.samples.some((sample) => sample.lot === props.lot.id),
    ),
)
const amount = computed(() =>
  used.value <= 0
    ? 'nothing made of it yet'
    : props.lot.unit === 'piece'
      ? `${used.value} used`
      : `${quantity(used.value, SHOWN[props.lot.unit])} in parts`,
)
</script>

<template>
  <button
    type="button"
    class="plainly row"
    :class="{ chosen }"
    :aria-pressed="chosen"
    :data-lot="lot.id"
    @click="$emit('choose')"
  >
    <LotPicture :lot="lot" :used="used" />
    <span class="name">
      <strong>{{ lot.name }}</strong>
      <span class="faint small"
        >{{ amount }}<template v-if="lot.faces">, {{ FACES[lot.faces] }}</template
        ><template v-if="!lot.rack">, this build's own</template></span
      >
    </span>
    <span class="now">
      <span class="figure big">{{ perUnit(now?.constant ?? lot.constant, lot.unit) }}</span>
      <span class="figure small faint"
        >±{{ perUnit(2 * (now?.sd ?? lot.doubt), lot.unit) }} {{ rate(lot.unit).name }}</span
      >
      <span class="small" :class="weighed ? 'sea' : 'faint'">{{
        weighed ? `weighed; was ${perUnit(lot.constant, lot.unit)}` : lot.source || 'stated'
      }}</span>
    </span>
  </button>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 74px minmax(0, 1fr) auto;
  gap: 14px;
  align-items: center;
  width: 100%;
  padding: 7px 10px 7px 6px;
  border-bottom: 1px solid var(--line);
  border-left: 4px solid transparent;
}

.row:hover {
  background: var(--sea-wash);
}

.chosen {
  border-left-color: var(--brass);
  background: var(--paper);
}

.name,
.now {
  display: grid;
}

.now {
  justify-items: end;
}

.big {
  font-size: 19px;
  line-height: 1.1;
}

.sea {
  color: var(--sea);
}
</style>
