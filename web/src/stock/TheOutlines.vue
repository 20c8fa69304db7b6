<script setup lang="ts">
import { useOutlineWords } from '../say/outlines'
import { computed, ref } from 'vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import DrawingPicture from './DrawingPicture.vue'
import OfferLine from './OfferLine.vue'
import ShapeForm from './ShapeForm.vue'
import TemplateForm from './TemplateForm.vue'
import TheTiles from './TheTiles.vue'
import { AFT, DATUMS, useCandidates } from './useCandidates'
import PickList from '../shared/PickList.vue'
import { named, titled } from '../shared/choices'

const LIES = titled({ flat: 'flat, as a wing', upright: 'upright, as a fin' })
const DATUMS_FROM = titled({ nose: 'nose', leading_edge: 'leading edge' })
const { odd } = useOutlineWords()

const { build } = useBuild()
const { units, number } = useUnits()
const {
  outlines, offers, file, busy, wrong, closing, common, layers, pressLayer, sheets, constant, chosen,
  read, close, know, putTogether, print, measure, add, keep,
} = useCandidates() // prettier-ignore

const chooser = ref<HTMLInputElement>()
const over = ref(false)
const known = ref('')
const correcting = ref(false)
const of = ref<number | 'across'>('across')

function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const picked = input.files?.[0]
  input.value = ''
  if (picked) void read(picked)
}

function drop(event: DragEvent) {
  over.value = false
  const picked = event.dataTransfer?.files[0]
  if (picked) void read(picked)
}

const drawn = computed(() => offers.value.filter((each) => each.drawn))
const gap = computed(() => Math.max(0, ...(outlines.value?.open ?? []).map((path) => path.gap_mm)))
const closable = computed(() => (outlines.value?.open ?? []).filter((path) => path.gap_mm <= 5))
const unscaled = computed(() => outlines.value?.mm_per_unit === null)

const ofWidth = computed(() => {
  if (of.value === 'across') return outlines.value?.width_mm ?? 0
  const box = drawn.value.find((each) => each.key === of.value)?.candidate.box
  return box ? box.right_mm - box.left_mm : 0
})

const grams = computed(() =>
  chosen.value.reduce(
    (sum, each) =>
      sum + each.candidate.area_dm2 * each.layers * (each.twin ? 2 : 1) * constant.value,
    0,
  ),
)
const groups = computed(() =>
  [...new Set(build.value?.parts.map((part) => part.assembly))].filter(Boolean),
)
</script>

<template>
  <div class="outlines">
    <section class="sheet" aria-label="Drawing">
      <div
        class="drop"
        :class="{ over }"
        @dragover.prevent="over = true"
        @dragleave="over = false"
        @drop.prevent="drop"
      >
        <v-btn class="press--main" @click="chooser?.click()">Read a drawing</v-btn>
        <span class="faint small"
          >SVG, DXF or a PDF plan, or drop one here. Nothing is kept until you say so.</span
        >
        <input
          ref="chooser"
          type="file"
          accept=".svg,.dxf,.pdf,image/svg+xml,application/pdf"
          hidden
          aria-label="Drawing"
          @change="choose"
        />
      </div>
      <p v-if="busy" class="faint" aria-busy="true">Reading {{ file?.name }} …</p>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <TheTiles
        v-if="outlines && outlines.pages > 1"
        :pages="outlines.pages"
        @put="(columns, overlap) => putTogether(columns, overlap)"
      />
      <v-verb
        v-if="outlines && !unscaled && !correcting"
        class="small not-full"
        @click="correcting = true"
      >
        It is not drawn to full size
      </v-verb>
      <form v-if="unscaled || correcting" class="ask" @submit.prevent="know(known, ofWidth)">
        <p v-if="unscaled">
          <strong>The drawing does not say its scale.</strong> Give one length that you know; until
          then a unit counts as a millimetre.
        </p>
        <p v-else>Give one length that you know, and the rest follows.</p>
        <label
          >across
          <PickList
            v-model="of"
            :items="[
              { value: 'across', title: 'the whole drawing' },
              ...drawn.map((each) => ({ value: each.key, title: each.name })),
            ]"
            aria-label="What was measured"
          />
          it is
          <v-text-field
            v-model="known"
            class="entry figure few"
            aria-label="True length"
            inputmode="decimal"
          />
          {{ units.length.name }}</label
        >
        <v-btn type="submit">Take this scale</v-btn>
      </form>
      <DrawingPicture v-if="drawn.length" :offers="drawn" />
      <p v-if="layers.length > 1" class="layers small">
        <span class="faint">layers</span>
        <v-verb v-for="layer in layers" :key="layer" @click="pressLayer(layer)">
          {{ layer || 'none' }}
        </v-verb>
      </p>
      <template v-if="outlines">
        <p v-for="each in outlines.odd" :key="each.kind" class="faint small">{{ odd(each) }}</p>
        <p v-for="note in outlines.notes" :key="note" class="faint small">{{ note }}</p>
        <p v-if="outlines.open.length" class="small">
          {{
            outlines.open.length === 1
              ? 'One path is open'
              : `${outlines.open.length} paths are open`
          }}, gaps up to {{ number(gap, 'length', 2) }} {{ units.length.name }}: fold lines stay so.
          <v-verb v-if="closable.length && closing === 0" @click="close(5)">
            close gaps up to {{ number(5, 'length') }} {{ units.length.name }}
          </v-verb>
        </p>
        <p v-if="!outlines.parts.length && !outlines.open.length" class="faint">
          Nothing is drawn in it that encloses an area.
        </p>
      </template>
      <ShapeForm :measure="measure" @add="add($event)" />
      <TemplateForm @add="(part, doubt) => add(part, doubt)" />
    </section>

    <section class="offers" aria-label="Parts offered">
      <div v-if="!sheets.length" class="blank">
        <h2>No sheet to cut from yet</h2>
        <p class="faint">
          Take a foam sheet from the Rack first; what a piece of it weighs makes areas into masses.
        </p>
      </div>
      <div v-else-if="!offers.length" class="blank faint">
        <h2>Parts appear here</h2>
        <p>
          Each closed outline becomes a part with its area and centroid; what lies inside it is cut
          out. Or measure a plain shape on the left.
        </p>
      </div>
      <template v-else>
        <div class="common">
          <label
            >cut from
            <PickList
              v-model="common.lot"
              :items="named(sheets.slice(1), sheets[0]?.name)"
              aria-label="Cut from"
          /></label>
          <label
            >assembly
            <v-text-field
              v-model="common.assembly"
              class="entry"
              list="groups"
              aria-label="Assembly"
            />
            <datalist id="groups">
              <option v-for="group in groups" :key="group" :value="group" />
            </datalist>
          </label>
          <label
            >drawn with <PickList v-model="common.aft" :items="AFT" aria-label="Drawn with"
          /></label>
          <label>lying <PickList v-model="common.lie" :items="LIES" aria-label="Lying" /></label>
          <label
            >station of <PickList v-model="common.datum" :items="DATUMS" aria-label="Station of"
          /></label>
          <label
            >from the
            <PickList
              v-model="common.reference"
              :items="DATUMS_FROM"
              aria-label="Stations from the"
          /></label>
        </div>
        <div
          class="wide"
          tabindex="0"
          role="group"
          aria-label="A table, wider than the screen perhaps"
        >
          <v-table class="lined">
            <thead class="faint">
              <tr>
                <th />
                <th>part</th>
                <th class="right">area</th>
                <th class="right">holes</th>
                <th>layers</th>
                <th>twin</th>
                <th>aft</th>
                <th>side</th>
                <th>up</th>
                <th class="right">weighs</th>
              </tr>
            </thead>
            <tbody>
              <OfferLine
                v-for="each in offers"
                :key="each.key"
                v-model:offer="offers[offers.indexOf(each)]!"
                :constant="constant"
              />
            </tbody>
          </v-table>
        </div>
        <p class="keep">
          <v-btn class="press--main" :disabled="!chosen.length" @click="keep">
            Keep {{ chosen.length === 1 ? 'one part' : `${chosen.length} parts` }}
          </v-btn>
          <span class="figure">{{ number(grams, 'mass') }} {{ units.mass.name }}</span>
          <span class="faint small">in all, before anything is cut</span>
          <v-btn v-if="drawn.some((each) => each.taken)" class="press--quiet" @click="print"
            >Print at full size</v-btn
          >
        </p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.outlines {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
  gap: 32px;
}

.sheet,
.offers {
  display: grid;
  gap: 14px;
  align-content: start;
}

.drop {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  border: 1px dashed var(--faint);
  padding: 12px;
}

.over {
  background: var(--sea-wash);
  border-style: solid;
}

.layers {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}

.ask {
  border-left: 4px solid var(--brass);
  padding-left: 12px;
  display: grid;
  gap: 8px;
  justify-items: start;
}

.few {
  width: 84px;
}

.not-full {
  justify-self: start;
}

.common {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  font-size: 13px;
}

.common .entry {
  max-width: 210px;
}

.keep {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}

.blank {
  padding: 12px 0;
  display: grid;
  gap: 8px;
  max-width: 52ch;
}

@media (max-width: 1000px) {
  .outlines {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
