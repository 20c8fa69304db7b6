<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import type { Part } from '../api/client'
import { COLOURS } from '../say/colours'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import LifeSheet from './LifeSheet.vue'
import { usePartKeeping } from './usePartKeeping'
import { PEDIGREES } from './usePartLine'
import TheseWords from '../shared/TheseWords.vue'
import PickList from '../shared/PickList.vue'
import { asSaid, type Choice, type Heading } from '../shared/choices'

const OF = [
  { value: 'all' as const, title: 'in all' },
  { value: 'each' as const, title: 'each' },
]
const DATUMS = [
  { value: 'nose' as const, title: 'of nose' },
  { value: 'leading_edge' as const, title: 'of leading edge' },
]
const PAINTS = [{ value: '', title: 'plain' }, ...asSaid(Object.keys(COLOURS))]

const props = defineProps<{ part?: Part }>()
const emit = defineEmits<{ done: [] }>()

const { build } = useBuild()
const { units, example } = useUnits()
/** About how a panel's sides would be typed. */
const panel = computed(() => `${example(540, 'length')} x ${example(190, 'length')}`)
const name = ref<Pick<HTMLElement, 'focus' | 'blur'>>()
onMounted(() => {
  if (props.part) name.value?.focus()
})

/** A part that was changed closes its line; one that was added begins the next. */
async function kept() {
  if (props.part) return emit('done')
  await nextTick()
  name.value?.focus()
}
const {
  fields,
  wrong,
  amountUnit,
  multiplied,
  others,
  weighed,
  weighedAnew,
  chooseLot,
  keep,
  figureWasWrong,
  anotherPart,
  drop,
} = usePartKeeping(props.part, kept)

const asking = ref(false)
/** On a phone the line is all that is asked for a new part, until the figures are wanted. */
const unfolded = ref(false)
const groups = computed(() =>
  [...new Set(build.value?.parts.map((part) => part.assembly))].filter(Boolean),
)
const pedigrees = computed(() =>
  props.part?.pedigree === 'allowance'
    ? PEDIGREES
    : PEDIGREES.filter((each) => each.value !== 'allowance'),
)
const lots = computed((): (Choice | Heading)[] => [
  { value: '', title: 'by itself' },
  ...(build.value?.lots ?? []).map((lot) => ({ value: lot.id, title: `of ${lot.name}` })),
  ...(others.value.length ? [{ type: 'subheader' as const, title: 'from the rack' }] : []),
  ...others.value.map(({ lot }) => ({ value: `rack:${lot.id}`, title: `of ${lot.name}` })),
])
const several = computed(() => Number(fields.pieces.replace(',', '.')) > 1)

/** Enter keeps the line; on what is pressed it presses that, and on a list it opens it. */
function onEnter(event: KeyboardEvent) {
  if (event.defaultPrevented || (event.target as HTMLElement).closest('button, summary')) return
  event.preventDefault()
  void keep()
}

const question = ref<HTMLElement | null>(null)
watch(weighedAnew, async (asked) => {
  await nextTick()
  if (asked) question.value?.querySelector('button')?.focus()
  else name.value?.focus()
})
</script>

<template>
  <form
    class="part-form"
    :class="{ folded: !part && !unfolded }"
    :aria-label="part ? part.name : 'The next part'"
    @submit.prevent="keep"
    @keydown.enter="onEnter"
    @keydown.esc="emit('done')"
  >
    <div class="fields">
      <label class="name"
        ><span class="faint">{{ part ? 'part' : 'next part, or all of it on one line' }}</span>
        <v-text-field
          ref="name"
          v-model="fields.name"
          class="entry"
          :data-first="part ? undefined : ''"
          :aria-label="part ? 'Name' : 'Name of the next part'"
          :placeholder="
            part
              ? ''
              : `Motor ${example(28, 'mass')} ${units.mass.name} at ${example(40, 'length')}`
          "
          autocomplete="off"
          maxlength="200"
        />
      </label>
      <label class="assembly"
        ><span class="faint">in</span>
        <v-text-field
          v-model="fields.assembly"
          class="entry"
          aria-label="Assembly"
          list="assemblies"
          placeholder="assembly"
          maxlength="80"
        />
        <datalist id="assemblies">
          <option v-for="group in groups" :key="group" :value="group" />
        </datalist>
      </label>
      <label
        ><span class="faint">known by</span>
        <PickList v-model="fields.pedigree" :items="pedigrees" aria-label="How the mass is known" />
      </label>
      <div class="figures">
        <label
          ><span class="faint">figure, {{ amountUnit }}</span>
          <v-text-field
            v-model="fields.amount"
            class="entry figure"
            :aria-label="fields.lot ? 'How much of the lot' : 'Mass'"
            :placeholder="amountUnit === units.area.name ? `${panel}, 2/3 sheet` : ''"
            inputmode="decimal"
            autocomplete="off"
          />
        </label>
        <PickList
          v-model="fields.lot"
          :items="lots"
          aria-label="Made of"
          @update:model-value="chooseLot"
        />
      </div>
      <div class="figures">
        <label
          ><span class="faint">pieces</span>
          <v-text-field
            v-model="fields.pieces"
            class="entry figure few"
            aria-label="Pieces"
            inputmode="numeric"
            autocomplete="off"
          />
        </label>
        <template v-if="several">
          <PickList v-model="fields.of" :items="OF" aria-label="The figure is of" />
          <span class="faint small times" role="status">{{ multiplied }}</span>
        </template>
      </div>
      <div class="figures">
        <label
          ><span class="faint">{{ units.length.name }} aft</span>
          <v-text-field
            v-model="fields.x"
            class="entry figure"
            aria-label="Station"
            inputmode="decimal"
            autocomplete="off"
          />
        </label>
        <PickList v-model="fields.reference" :items="DATUMS" aria-label="Measured from" />
      </div>
      <label
        ><span class="faint">starboard</span>
        <v-text-field
          v-model="fields.y"
          class="entry figure few"
          aria-label="To starboard"
          inputmode="decimal"
          autocomplete="off"
        />
      </label>
      <label
        ><span class="faint">up</span>
        <v-text-field
          v-model="fields.z"
          class="entry figure few"
          aria-label="Up"
          inputmode="decimal"
          autocomplete="off"
        />
      </label>
      <label
        ><span class="faint">colour</span>
        <PickList v-model="fields.colour" :items="PAINTS" aria-label="Colour" />
      </label>
      <label class="option"
        ><span class="faint">option</span>
        <v-checkbox-btn v-model="fields.option" aria-label="Only in some loadouts" />
      </label>
    </div>
    <div class="verbs small">
      <v-verb @click="keep"> {{ part ? 'keep' : 'add' }} <kbd>Enter</kbd> </v-verb>
      <template v-if="part">
        <v-verb class="faint" @click="emit('done')"> leave it as it was <kbd>Esc</kbd> </v-verb>
        <v-verb v-if="!weighed" class="faint" @click="drop"> remove </v-verb>
        <v-verb class="faint" @click="asking = true"> it was repaired, replaced … </v-verb>
        <LifeSheet v-model="asking" :part="part" />
      </template>
      <v-verb v-else class="unfold" @click="unfolded = !unfolded">
        {{ unfolded ? 'the line alone' : 'figure by figure' }}
      </v-verb>
      <span v-if="!part" class="faint"
        >“Left panel {{ panel }} of sheet b in Wing at le {{ example(80, 'length') }}”: after its
        name a mass, or how much of what; then <em>in</em>, <em>at</em>, <em>side</em>,
        <em>up</em>.</span
      >
    </div>
    <TheseWords :of="['known by', 'pieces', 'station', 'option', 'lot']" class="words" />
    <div
      v-if="weighedAnew"
      ref="question"
      class="question"
      role="alertdialog"
      aria-label="It was weighed before"
      @keydown.esc.stop="weighedAnew = null"
    >
      <span>
        {{ part?.name }} was weighed before. Was its figure wrong, or is it another part now?
      </span>
      <v-verb @click="figureWasWrong"> the figure was wrong; the weighing stands </v-verb>
      <v-verb @click="anotherPart"> another part, to be weighed anew </v-verb>
      <v-verb class="faint" @click="weighedAnew = null"> neither <kbd>Esc</kbd> </v-verb>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </form>
</template>

<style scoped>
.part-form {
  display: grid;
  gap: 6px;
  padding: 8px 12px 10px;
  background: var(--paper);
  border: 1px solid var(--line);
  border-left: 3px solid var(--brass);
  white-space: normal;
}

.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: end;
}

label {
  display: grid;
  font-size: 13px;
}

.name {
  flex: 1 1 260px;
}

.assembly {
  flex: 0 1 140px;
}

.entry {
  width: 100%;
}

.figures {
  display: flex;
  align-items: end;
  gap: 4px;
}

.figures label {
  width: 92px;
}

.figures .pick {
  max-width: 140px;
}

.fields .few {
  width: 64px;
  min-width: 0;
}

.figures label:has(.few) {
  width: auto;
}

.entry.figure {
  text-align: right;
}

.option .v-selection-control {
  margin: 3px 0;
}

.unfold {
  display: none;
}

@media (max-width: 700px) {
  .unfold {
    display: inline;
  }

  .folded > .words,
  .folded .fields > :not(.name) {
    display: none;
  }
}

.verbs,
.question {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}

.verbs button,
.question button {
  min-height: 24px;
}
</style>
