<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Control, NewControl } from '../api/client'
import { CONTROL_KINDS, goesSideways, motionWords, useFieldWords } from '../say/field'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import ControlDrawing from './ControlDrawing.vue'
import { useField } from './useField'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { field, controls, setControls, dropControl, setShim, bend } = useField()
const { build } = useBuild()
const { units } = useUnits()
const words = useFieldWords()

const surfaces = computed(() => build.value?.surfaces ?? [])
const fins = computed(
  () => new Set(surfaces.value.filter((s) => s.role === 'fin').map((s) => s.id)),
)
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
function edit(id: string, patch: Partial<NewControl>) {
  void setControls((now) => now.map((each) => (each.id === id ? { ...each, ...patch } : each)))
}
const told = (id: string) => field.value?.told.controls.find((each) => each.id === id)
const percent = (share: number) => `${Math.round(100 * share)}`
function note(control: Control): string {
  const drawn = told(control.id)
  if (!drawn) return ''
  const usual = `usual ${percent(drawn.usual_low)} to ${percent(drawn.usual_high)} %`
  return `${words.quantity(drawn.area_dm2, 'area')}, ${words.quantity(drawn.chord_mm, 'length')} deep; ${drawn.is_usual ? '' : 'not '}the ${usual} of the chord`
}
const ways = (control: Control) =>
  goesSideways(control, fins.value) ? ['right', 'left'] : ['up', 'down']
const degrees = (value: number | null | undefined) => (value == null ? null : value)
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
      <article v-for="each in controls" :key="each.id" :aria-label="each.name">
        <header>
          <TextCell
            :value="each.name"
            :label="`Name of ${each.name}`"
            @kept="(name) => edit(each.id, { name })"
          />
          <span class="small faint"
            >{{ CONTROL_KINDS[each.kind] }} on
            {{ surfaces.find((s) => s.id === each.surface)?.name ?? each.surface }}</span
          >
          <v-verb class="small faint" @click="dropControl(each)"> remove </v-verb>
        </header>
        <p class="row">
          <label
            >from
            <QuantityCell
              :value="100 * each.from_share"
              kind="number"
              :label="`${each.name}: from, per cent of the half span`"
              :least="0"
              :most="100"
              :digits="0"
              @kept="(v) => v !== null && edit(each.id, { from_share: v / 100 })"
          /></label>
          <label
            >to
            <QuantityCell
              :value="100 * each.to_share"
              kind="number"
              :label="`${each.name}: to, per cent of the half span`"
              :least="0"
              :most="100"
              :digits="0"
              @kept="(v) => v !== null && edit(each.id, { to_share: v / 100 })"
            />
            % of the half span</label
          >
          <label
            >chord
            <QuantityCell
              :value="100 * each.chord_share"
              kind="number"
              :label="`${each.name}: per cent of the chord`"
              :least="1"
              :most="100"
              :digits="0"
              @kept="(v) => v !== null && edit(each.id, { chord_share: v / 100 })"
            />
            %</label
          >
        </p>
        <p v-for="(way, k) in ways(each)" :key="way" class="row">
          <label
            >{{ way }}
            <QuantityCell
              :value="k ? each.down_mm : each.up_mm"
              kind="length"
              :unit="units.length.name"
              :base="units.length.base"
              :digits="units.length.base === 1 ? 1 : 3"
              optional
              :label="`${each.name}: travel ${way}`"
              @kept="(mm) => edit(each.id, k ? { down_mm: mm } : { up_mm: mm })"
            />
            {{ units.length.name }}</label
          >
          <label
            >or
            <QuantityCell
              :value="degrees(k ? told(each.id)?.down_deg : told(each.id)?.up_deg)"
              kind="number"
              :least="0"
              :most="45"
              :digits="1"
              optional
              :label="`${each.name}: travel ${way}, degrees`"
              @kept="
                (deg) => deg !== null && edit(each.id, k ? { down_deg: deg } : { up_deg: deg })
              "
            />°</label
          >
        </p>
        <p class="row">
          <label
            >arm hole
            <QuantityCell
              :value="each.arm_mm"
              kind="length"
              :unit="units.length.name"
              :base="units.length.base"
              optional
              :label="`${each.name}: arm hole`"
              @kept="(mm) => edit(each.id, { arm_mm: mm })"
          /></label>
          <label
            >horn hole
            <QuantityCell
              :value="each.horn_mm"
              kind="length"
              :unit="units.length.name"
              :base="units.length.base"
              optional
              :label="`${each.name}: horn hole`"
              @kept="(mm) => edit(each.id, { horn_mm: mm })"
            />
            {{ units.length.name }}</label
          >
          <span v-if="told(each.id)?.ratio != null" class="small"
            >1 : {{ fixed(1 / told(each.id)!.ratio!, 2) }}, arm to horn</span
          >
          <v-checkbox-btn
            v-if="each.kind === 'rudder'"
            :model-value="each.with_aileron"
            label="goes with aileron"
            @update:model-value="edit(each.id, { with_aileron: $event })"
          />
        </p>
        <p class="row">
          <span
            >trimmed to
            <strong class="figure">{{
              words.setting(each.set_mm, goesSideways(each, fins))
            }}</strong></span
          >
          <QuantityCell
            :value="each.set_mm"
            kind="length"
            :unit="units.length.name"
            :base="units.length.base"
            :digits="units.length.base === 1 ? 1 : 3"
            :label="`${each.name}: trimmed to`"
            @kept="(mm) => mm !== null && bend(each.id, mm)"
          />
          <span class="small faint">{{ ways(each)[0] }} is above 0</span>
        </p>
        <p class="small">{{ motionWords(told(each.id)) }}</p>
        <p class="small faint">{{ note(each) }}</p>
      </article>
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

p {
  margin: 0;
}

article {
  display: grid;
  gap: 6px;
  padding: 10px 12px;
  background: var(--paper);
  border: 1px solid var(--line);
}

header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
}

header button {
  margin-left: auto;
  min-height: 34px;
}

.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
}

.row :deep(.cell) {
  width: 64px;
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
