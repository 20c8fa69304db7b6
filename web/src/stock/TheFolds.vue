<script setup lang="ts">
import { computed } from 'vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import FoldFigures from './FoldFigures.vue'
import FoldPicture from './FoldPicture.vue'
import { FOLDS, useFold } from './useFold'
import PickList from '../shared/PickList.vue'
import { named, titled } from '../shared/choices'

const WAYS = titled({
  groove: 'a groove, sides bevelled',
  strip: 'a strip taken out to the paper',
})
const { units } = useUnits()
const { assessment } = useBuild()
const {
  kind, sizes, way, hasTop, name, twin, station, height, sheets, lot, sheet, board, folded, wrong,
  wrongKept, keep,
} = useFold() // prettier-ignore

const length = computed(() => units.value.length)
const net = computed(() => (folded.value?.part.area_dm2 ?? 0) - (folded.value?.groove_dm2 ?? 0))
const grams = computed(() => {
  const constant = assessment.value?.lots.find((each) => each.id === sheet.value?.id)?.constant
  return constant === undefined ? null : constant * net.value
})
</script>

<template>
  <section class="folds" aria-label="Folds">
    <form class="sizes" @submit.prevent="keep">
      <label
        >folded from one board:
        <PickList v-model="kind" :items="titled(FOLDS)" aria-label="What is folded"
      /></label>
      <label v-for="field in FOLDS[kind].fields" :key="`${kind}-${field.key}`"
        >{{ field.title }}
        <span
          ><QuantityCell
            :value="sizes[field.key] ?? null"
            :kind="field.isShare ? 'number' : 'length'"
            :label="field.title"
            :unit="field.isShare ? '' : length.name"
            :base="field.isShare ? 1 : length.base"
            :optional="field.isOptional ?? false"
            :on-typed="(value) => (sizes[field.key] = value)"
            :on-kept="(value) => (sizes[field.key] = value)"
          />
          {{ field.isShare ? '' : length.name }}</span
        ></label
      >
      <label
        >the board is
        <span
          ><QuantityCell
            :value="board"
            kind="length"
            label="Thickness of the board"
            :unit="length.name"
            :base="length.base"
            :on-typed="(value) => (board = value ?? board)"
            :on-kept="(value) => (board = value ?? board)"
          />
          {{ length.name }}</span
        ></label
      >
      <label v-if="kind !== 'sides'"
        >opened inside as
        <PickList v-model="way" :items="WAYS" aria-label="How the folds are opened"
      /></label>
      <v-checkbox-btn v-if="kind === 'box'" v-model="hasTop" label="closed, with a top" />
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>

      <h3>Keep it as a part</h3>
      <p v-if="!sheets.length" class="faint">Take a sheet from the Rack first.</p>
      <template v-else>
        <label
          >called
          <v-text-field
            v-model="name"
            class="entry"
            aria-label="Name of what is folded"
            maxlength="70"
        /></label>
        <label
          >from
          <PickList
            :model-value="sheet?.id ?? ''"
            :items="named(sheets)"
            aria-label="Sheet that it is folded from"
            @update:model-value="lot = $event"
        /></label>
        <label
          >{{ kind === 'box' ? 'its front end from the nose' : 'leading edge from the nose' }}
          <span
            ><QuantityCell
              :value="station"
              kind="station"
              label="Where it begins, from the nose"
              :unit="length.name"
              :base="length.base"
              optional
              :on-kept="(value) => (station = value)"
            />
            {{ length.name }}</span
          ></label
        >
        <label v-if="station !== null"
          >up
          <span
            ><QuantityCell
              :value="height"
              kind="station"
              label="How high it sits"
              :unit="length.name"
              :base="length.base"
              optional
              :on-kept="(value) => (height = value)"
            />
            {{ length.name }}</span
          ></label
        >
        <v-checkbox-btn v-if="kind !== 'box'" v-model="twin" label="left and right" />
        <p v-if="wrongKept" class="wrong" role="alert">{{ wrongKept }}</p>
        <v-btn type="submit" class="press--main" :disabled="!folded || !!wrong">Keep it</v-btn>
      </template>
    </form>

    <div v-if="folded" class="told" :class="{ stale: wrong }">
      <FoldPicture :folded="folded" :board="board" />
      <FoldFigures :folded="folded" :net="net" :grams="grams" />
      <p class="faint small">
        The outer paper stays whole and is the hinge. Dashed: the folds; shaded: where the inner
        face is opened.
      </p>
    </div>
    <p v-else-if="!wrong" class="faint" aria-busy="true">Unfolding …</p>
  </section>
</template>

<style scoped>
.folds {
  display: grid;
  grid-template-columns: minmax(300px, 400px) 1fr;
  gap: 40px;
}

.sizes {
  display: grid;
  gap: 10px;
  align-content: start;
}

label {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}

label .pick {
  max-width: 220px;
}

label span {
  white-space: nowrap;
}

label :deep(.cell) {
  width: 84px;
}

h3 {
  border-top: 1px solid var(--line);
  padding-top: 12px;
}

.told {
  display: grid;
  gap: 18px;
  align-content: start;
}

.stale {
  opacity: 0.45;
}

@media (max-width: 700px) {
  .folds {
    grid-template-columns: 1fr;
  }
}
</style>
