<script setup lang="ts">
import { computed } from 'vue'
import type { Body } from '../api/client'
import ChoiceButtons from '../shared/ChoiceButtons.vue'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import MakeParts from './MakeParts.vue'
import type { Draft } from './useDraft'

const props = defineProps<{ drawing: Draft }>()
const { build } = useBuild()
const { units } = useUnits()

const MEASURES: { key: keyof Body['frames'][number]; short: string; title: string }[] = [
  { key: 'x_mm', short: 'from nose', title: 'from nose' },
  { key: 'z_mm', short: 'middle up', title: 'its middle, up' },
  { key: 'width_mm', short: 'wide', title: 'width' },
  { key: 'height_mm', short: 'high', title: 'height' },
]
const SHAPES = [
  { name: 'box', title: 'box' },
  { name: 'tube', title: 'tube' },
] as const
const body = computed(() => props.drawing.body.value)
</script>

<template>
  <section v-if="body" class="form" :aria-label="body.name">
    <div class="head">
      <TextCell
        class="name"
        :value="body.name"
        :label="`Name of ${body.name}`"
        @kept="drawing.setBody({ name: $event })"
      />
      <ChoiceButtons
        :model-value="body.shape"
        :options="SHAPES"
        :label="`What ${body.name} is`"
        @update:model-value="$event && drawing.setBody({ shape: $event })"
      />
    </div>
    <v-table>
      <thead class="faint">
        <tr>
          <th v-for="measure in MEASURES" :key="measure.key">{{ measure.short }}</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="(frame, k) in body.frames" :key="k">
          <td v-for="measure in MEASURES" :key="measure.key">
            <QuantityCell
              :value="frame[measure.key]"
              :kind="measure.key === 'x_mm' || measure.key === 'z_mm' ? 'station' : 'length'"
              :build="build?.id"
              :label="`${body.name}, frame ${k + 1}, ${measure.title}`"
              :unit="units.length.name"
              :base="units.length.base"
              @typed="drawing.typedFrame(k, measure.key, $event)"
              @kept="drawing.keptFrame(k, measure.key, $event)"
            />
          </td>
          <td>
            <v-verb
              v-if="body.frames.length > 2"
              class="bare faint drop"
              :aria-label="`Remove frame ${k + 1}`"
              @click="drawing.dropFrame(k)"
            >
              ✕
            </v-verb>
          </td>
        </tr>
      </tbody>
    </v-table>
    <p class="line">
      <v-verb @click="drawing.addFrame()"> one more frame </v-verb>
      <label
        >to starboard
        <QuantityCell
          :value="body.y_mm"
          kind="station"
          :label="`${body.name}, to starboard`"
          :unit="units.length.name"
          :base="units.length.base"
          @kept="drawing.setBody({ y_mm: $event ?? 0 })"
      /></label>
    </p>
    <p class="line">
      <v-checkbox-btn
        :model-value="body.twin"
        label="one on each side"
        @update:model-value="drawing.setBody({ twin: $event })"
      />
      <v-checkbox-btn
        v-if="body.shape === 'box'"
        :model-value="body.has_top"
        label="closed above"
        @update:model-value="drawing.setBody({ has_top: $event })"
      />
    </p>
    <MakeParts :id="body.id" :drawing="drawing" :name="body.name" :runs="body.shape === 'tube'" />
    <p>
      <v-verb class="faint small" @click="drawing.remove()"> remove {{ body.name }} </v-verb>
    </p>
  </section>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
  min-width: 0;
}

.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  border-bottom: 1px solid var(--ink);
}

.head .name {
  flex: 1 1 90px;
  width: 90px;
  min-width: 0;
  border: 0;
  background: none;
  font-size: 18px;
  font-weight: 650;
  padding: 0;
}

.v-table {
  width: 100%;
}

th {
  font-weight: 400;
  font-size: 13px;
  text-align: left;
  padding: 2px 0 2px 6px;
}

td {
  padding: 2px 6px 2px 0;
}

td :deep(.cell) {
  width: 100%;
}

.drop {
  min-width: 24px;
  min-height: 24px;
}

.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
}

.line :deep(.cell) {
  width: 64px;
}
</style>
