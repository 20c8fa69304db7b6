<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { answered, api, type Opened, type Part } from '../api/client'
import { fromWhere } from '../say/parts'
import QuantityCell from '../shared/QuantityCell.vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'
import SeveralMoves from './SeveralMoves.vue'
import TheBallast from './TheBallast.vue'
import WhatItSaves from './WhatItSaves.vue'

const { id, build, send, changePart, nameOf } = useBuild()
const { units } = useUnits()

const flying = computed(() => (build.value?.parts ?? []).filter((part) => !part.retired))
const movable = computed(() => flying.value.filter((part) => part.slide))
const others = computed(() => flying.value.filter((part) => !part.slide && part.station))

const section = useTemplateRef('section')
/** The hand goes on where something came, or where more may be chosen. */
const goOn = async (where: string) => {
  await nextTick()
  section.value?.querySelector<HTMLElement>(where)?.focus()
}
function slide(part: Part, patch: Partial<NonNullable<Part['slide']>> | null) {
  void changePart(part.id, (now) => ({
    ...now,
    slide: patch && { ...(now.slide ?? { low_mm: 0, high_mm: 0 }), ...patch },
  }))
}

/** The list is only chosen from: walking through it moves nothing. */
const one = ref('')
async function letMove() {
  const path = { build_id: id.value, part_id: one.value }
  const moves = await send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/parts/{part_id}/slide', { params: { path, header } }),
    ),
  )
  if (!moves) return
  one.value = ''
  void goOn(`[data-moves="${path.part_id}"] input`)
}
function stays(part: Part) {
  slide(part, null)
  void goOn('.more input:not([type=hidden])')
}
</script>

<template>
  <section ref="section" aria-label="What may move" class="small">
    <h2>What may move</h2>
    <p v-if="movable.length" class="faint">{{ fromWhere() }}, {{ units.length.name }}</p>
    <p v-for="part in movable" :key="part.id" class="line" :data-moves="part.id">
      <span>{{ nameOf(part.id) }}</span>
      <span
        ><QuantityCell
          :value="part.slide?.low_mm ?? 0"
          kind="station"
          :unit="units.length.name"
          :base="units.length.base"
          :label="`${part.name}, foremost`"
          @kept="$event !== null && slide(part, { low_mm: $event })"
        />
        to
        <QuantityCell
          :value="part.slide?.high_mm ?? 0"
          kind="station"
          :unit="units.length.name"
          :base="units.length.base"
          :label="`${part.name}, aftmost`"
          @kept="$event !== null && slide(part, { high_mm: $event })"
        />
        {{ part.station?.reference === 'leading_edge' ? fromWhere(part) : '' }}
        <v-verb class="faint" :aria-label="`${part.name} stays where it is`" @click="stays(part)">
          stays
        </v-verb></span
      >
    </p>
    <p class="more">
      <PickList
        v-model="one"
        :items="named(others, 'one more that may move')"
        aria-label="May move too"
      />
      <v-verb v-if="one" @click="letMove">let it move</v-verb>
    </p>
    <WhatItSaves :parts="[...movable, ...others]" />
    <SeveralMoves />
    <TheBallast />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  justify-items: start;
}

.line {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 10px;
  width: 100%;
  align-items: center;
}

section :deep(.cell) {
  width: 62px;
}
</style>
