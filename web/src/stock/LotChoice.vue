<script setup lang="ts">
import { computed } from 'vue'
import type { Lot } from '../api/client'
import { QUALITIES, SAID_OF, type Quality } from '../say/qualities'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { useUnits } from '../shared/units'

/** What matters when a lot is chosen and bought: how it behaves, how long it takes, where it is. */
const props = defineProps<{ lot: Lot; onDescribe: (patch: Partial<Lot>) => void }>()
const { units } = useUnits()

const inBottles = computed(() => ['adhesive', 'paint'].includes(props.lot.kind))
const said = computed(() => SAID_OF[props.lot.kind] ?? [])

type Curing = NonNullable<Lot['curing']>
const USUAL: Curing = {
  close_after_s: 0,
  close_by_s: null,
  handle_after_s: 1200,
  strong_after_s: 86_400,
}
const TIMES: { key: keyof Curing; title: string; per: number; unit: string }[] = [
  { key: 'close_after_s', title: 'wait before closing', per: 60, unit: 'min' },
  { key: 'close_by_s', title: 'close within', per: 60, unit: 'min' },
  { key: 'handle_after_s', title: 'handle after', per: 60, unit: 'min' },
  { key: 'strong_after_s', title: 'strong after', per: 3600, unit: 'h' },
]
const time = (key: keyof Curing) => props.lot.curing?.[key] ?? null

/** One time of its own gives it a clock of its own; the others begin as usual. */
function cures(key: keyof Curing, seconds: number | null) {
  const curing = { ...(props.lot.curing ?? USUAL), [key]: seconds }
  if (key !== 'close_by_s' && seconds === null) props.onDescribe({ curing: null })
  else props.onDescribe({ curing })
}

function say(quality: Quality, isSo: boolean) {
  const others = props.lot.qualities.filter((each) => each !== quality)
  props.onDescribe({ qualities: isSo ? [...others, quality] : others })
}
</script>

<template>
  <dl>
    <template v-if="inBottles">
      <dt>{{ lot.kind === 'paint' ? 'one can' : 'one stick or bottle' }}</dt>
      <dd>
        <QuantityCell
          :value="lot.holds_g"
          kind="mass"
          :unit="units.mass.name"
          :base="units.mass.base"
          optional
          label="What one stick or bottle holds"
          @kept="onDescribe({ holds_g: $event })"
        />
        <span class="faint small">{{ units.mass.name }}, as it dries</span>
      </dd>
    </template>
    <template v-if="lot.unit === 'm' && !inBottles">
      <dt>{{ lot.kind === 'tape' ? 'wide' : 'across' }}</dt>
      <dd>
        <QuantityCell
          :value="lot.width_mm"
          kind="length"
          :unit="units.length.name"
          :base="units.length.base"
          optional
          label="Width or diameter"
          @kept="onDescribe({ width_mm: $event })"
        />
        <span class="faint small">{{ units.length.name }}</span>
      </dd>
    </template>
    <template v-if="lot.unit === 'dm2' && !inBottles">
      <dt>thick</dt>
      <dd>
        <QuantityCell
          :value="lot.thickness_mm"
          kind="length"
          :unit="units.length.name"
          :base="units.length.base"
          optional
          label="Thickness"
          @kept="onDescribe({ thickness_mm: $event })"
        />
        <span class="faint small">{{ units.length.name }}</span>
      </dd>
    </template>
    <template v-if="lot.kind === 'adhesive'">
      <dt>its own times</dt>
      <dd class="times">
        <label v-for="each in TIMES" :key="each.key"
          ><span class="faint small">{{ each.title }}</span>
          <QuantityCell
            :value="time(each.key)"
            kind="number"
            :base="each.per"
            optional
            :least="0"
            :label="`${each.title}, ${each.unit}`"
            @kept="cures(each.key, $event === null ? null : $event * each.per)"
          />
          <span class="faint small">{{ each.unit }}</span></label
        >
      </dd>
    </template>
    <template v-if="said.length">
      <dt>it is</dt>
      <dd class="said">
        <v-checkbox-btn
          v-for="quality in said"
          :key="quality"
          :model-value="lot.qualities.includes(quality)"
          :label="QUALITIES[quality]"
          density="compact"
          @update:model-value="say(quality, $event)"
        />
      </dd>
    </template>
    <dt>bought at</dt>
    <dd>
      <TextCell
        class="shop"
        :value="lot.shop"
        label="Where it is bought"
        :most="80"
        @kept="onDescribe({ shop: $event })"
      />
      <span class="faint small">there after</span>
      <QuantityCell
        :value="lot.lead_days"
        kind="number"
        optional
        :least="0"
        :most="365"
        label="Days until it is there"
        @kept="onDescribe({ lead_days: $event })"
      />
      <span class="faint small">days</span>
    </dd>
  </dl>
</template>

<style scoped>
.shop {
  width: 120px;
}

dl dd.times {
  display: grid;
  gap: 4px;
}

.times label {
  display: grid;
  grid-template-columns: 130px max-content max-content;
  gap: 8px;
  align-items: center;
}

dl dd.said {
  display: grid;
  gap: 0;
}
</style>
