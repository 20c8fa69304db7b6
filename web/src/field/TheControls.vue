<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Control, NewControl } from '../api/client'
import { CONTROL_KINDS } from '../say/field'
import QuantityCell from '../shared/QuantityCell.vue'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import AControl from './AControl.vue'
import ControlDrawing from './ControlDrawing.vue'
import { useField } from './useField'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { field, controls, setControls, setShim } = useField()
const { build } = useBuild()
const { units } = useUnits()

const surfaces = computed(() => build.value?.surfaces ?? [])
const kinds = Object.entries(CONTROL_KINDS).map(([value, title]) => ({ value, title }))

const fresh = ref<{ kind: Control['kind']; surface: string }>({ kind: 'elevator', surface: '' })
const surface = computed({
  get: () =>
    fresh.value.surface ||
    (surfaces.value.find((each) => each.role === 'tail') ?? surfaces.value[0])?.id ||
    '',
  set: (value: string) => (fresh.value.surface = value),
})

function add() {
  const name = CONTROL_KINDS[fresh.value.kind]
  const made: NewControl = {
    name: name.charAt(0).toUpperCase() + name.slice(1),
    kind: fresh.value.kind,
    surface: surface.value,
    chord_share: fresh.value.kind === 'tab' ? 0.12 : 0.25,
  }
  void setControls((now) => [...now, made])
}
const shims = computed(() => surfaces.value.filter((each) => each.role !== 'fin'))
</script>

<template>
  <section aria-label="Controls and tabs">
    <div class="drawing">
      <ControlDrawing />
      <p v-if="field?.told.incidence_deg != null" class="small">
        Wing against tail:
        <strong class="figure">{{ fixed(field.told.incidence_deg, 1) }}°</strong> difference of
        incidences.
      </p>
      <p v-for="each in shims" :key="each.id" class="small shim">
        {{ each.name }} sits at {{ fixed(each.incidence_deg, 1) }}°; a shim under its leading edge
        of
        <QuantityCell
          :value="null"
          kind="length"
          :unit="units.length.name"
          :base="units.length.base"
          :label="`Shim under ${each.name}`"
          optional
          @kept="(mm) => mm !== null && void setShim(each.id, mm)"
        />
        {{ units.length.name }}
      </p>
    </div>
    <div class="list">
      <h2>Controls and tabs</h2>
      <p v-if="!controls.length" class="faint">
        Say what moves and what can be bent: the list then asks for each by its way, and a throw
        keeps how it was set.
      </p>
      <AControl v-for="each in controls" :key="each.id" :each="each" />
      <form v-if="surfaces.length" @submit.prevent="add">
        <PickList v-model="fresh.kind" :items="kinds" label="what" />
        <PickList v-model="surface" :items="named(surfaces)" label="on" />
        <v-btn type="submit">Add it</v-btn>
      </form>
      <p v-else class="faint">
        Draw the wing first, on <router-link :to="{ name: 'plan' }">Plan</router-link>.
      </p>
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  grid-template-columns: minmax(280px, 1fr) minmax(0, 1.3fr);
  gap: 28px;
}

.drawing,
.list {
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
}

.shim :deep(.cell) {
  width: 64px;
}

form {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 10px;
}

@media (max-width: 900px) {
  section {
    grid-template-columns: minmax(0, 1fr);
  }

  form {
    grid-template-columns: 1fr;
  }
}
</style>
