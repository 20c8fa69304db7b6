<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import {
  answered,
  api,
  RefusedError,
  type Item,
  type Lot,
  type NewItem,
  type Opened,
} from '../api/client'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { useRack } from '../shared/useRack'
import LifeSheet from './LifeSheet.vue'
import { PEDIGREES, usePartLine } from './usePartLine'

const props = defineProps<{ item?: Item }>()
const emit = defineEmits<{ done: [] }>()

const { id, build, addItem, changeItem, removePart, send } = useBuild()
const { lots, others, take } = useRack()
const { fields, wrong, amountUnit, multiplied, part, next } = usePartLine(props.item)

const name = ref<HTMLInputElement>()
const busy = ref(false)
const asking = ref(false)
onMounted(() => {
  if (props.item) name.value?.focus()
})

const groups = computed(() =>
  [...new Set(build.value?.items.map((item) => item.assembly))].filter(Boolean),
)
const pedigrees = computed(() =>
  props.item?.pedigree === 'allowance'
    ? PEDIGREES
    : PEDIGREES.filter((each) => each.value !== 'allowance'),
)
const weighed = computed(() =>
  build.value?.weighings.some((each) =>
    each.pan.loads.some((load) => load.item === props.item?.id),
  ),
)

/** How a part of each kind of lot is usually known. */
const KNOWN_BY: Record<Lot['kind'], Item['pedigree']> = {
  foam: 'calculated',
  rod: 'calculated',
  plywood: 'calculated',
  card: 'calculated',
  other: 'calculated',
  adhesive: 'joint',
  paint: 'joint',
  tape: 'covering',
  film: 'covering',
}

/** On a phone the line is all that is asked for a new part, until the figures are wanted. */
const unfolded = ref(false)

const shelved = computed(() => /^rack:(.*)$/.exec(fields.lot)?.[1])
const several = computed(() => Number(fields.pieces.replace(',', '.')) > 1)

/** Walking through the list takes nothing into the build: that is done when the part is kept. */
function chooseLot() {
  const lot =
    build.value?.lots.find((each) => each.id === fields.lot) ??
    others.value.find((each) => each.lot.id === shelved.value)?.lot
  fields.pedigree = lot ? KNOWN_BY[lot.kind] : 'guess'
}

async function takeShelved(): Promise<boolean> {
  const wanted = shelved.value
  if (!wanted) return true
  if (!(await take(wanted))) return false
  fields.lot = lots.value.find((each) => each.rack === wanted)?.id ?? ''
  return fields.lot !== ''
}

/** What a weighed part is now: its figure was wrong, or it is another part. Null while not asked. */
const weighedAnew = ref<NewItem | null>(null)

function isAnother(typed: NewItem): boolean {
  const was = props.item
  if (!was || !weighed.value) return false
  return (
    typed.stated_g !== was.stated_g ||
    JSON.stringify(typed.uses?.map((use) => [use.lot, use.amount])) !==
      JSON.stringify(was.uses.map((use) => [use.lot, use.amount]))
  )
}

async function figureWasWrong() {
  const typed = weighedAnew.value
  weighedAnew.value = null
  if (typed && props.item && (await changeItem({ ...typed, id: props.item.id }))) emit('done')
}

/** Another part in its place: what was weighed speaks on of the one before. */
async function anotherPart() {
  const typed = weighedAnew.value
  const was = props.item
  weighedAnew.value = null
  if (!typed || !was) return
  const fresh: NewItem = {
    name: typed.name,
    pedigree: typed.pedigree,
    ...(typed.stated_g === undefined ? {} : { stated_g: typed.stated_g }),
    ...(typed.uses ? { uses: typed.uses } : {}),
    pieces: typed.pieces ?? 1,
    station: typed.station ?? null,
  }
  const kept = await send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/items/{item_id}/replace', {
        params: { path: { build_id: id.value, item_id: was.id }, header },
        body: { item: fresh, words: `${was.name} replaced by another` },
      }),
    ),
  )
  if (kept) emit('done')
}

const { units } = useUnits()
/** A line whose station lies off the plane: kept once Enter is pressed on it again. */
const asked = ref('')

/** The name alone was typed: it may be the whole part, and the workshop understands it. */
const isLine = computed(
  () => !props.item && !fields.amount.trim() && !fields.lot && !fields.x.trim(),
)

function addLine(): Promise<boolean> {
  const line = fields.name.trim()
  const { mass, length, area, run } = units.value
  return send(async (header) => {
    try {
      const told = await answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/items/line', {
          params: { path: { build_id: id.value }, header },
          body: {
            line,
            assembly: fields.assembly.trim(),
            mass: mass.name,
            length: length.name,
            area: area.name.replace('²', '2'),
            run: run.name,
            sure: asked.value === line,
          },
        }),
      )
      asked.value = ''
      return told
    } catch (error) {
      asked.value = error instanceof RefusedError && error.status === 409 ? line : ''
      throw error
    }
  })
}

async function begunAnew() {
  next()
  await nextTick()
  name.value?.focus()
}

async function keep() {
  if (busy.value) return
  busy.value = true
  if (isLine.value) {
    wrong.value = ''
    if (!fields.name.trim()) wrong.value = 'Name: give the part a name'
    else if (await addLine()) await begunAnew()
    busy.value = false
    return
  }
  const typed = (await takeShelved()) ? await part() : undefined
  if (typed && isAnother(typed)) weighedAnew.value = typed
  else if (typed) {
    const kept = props.item
      ? await changeItem({ ...typed, id: props.item.id })
      : await addItem(typed)
    if (kept && props.item) emit('done')
    else if (kept) await begunAnew()
  }
  busy.value = false
}

/** Enter keeps the line; on a button it presses the button. */
function onEnter(event: KeyboardEvent) {
  if ((event.target as HTMLElement).closest('button')) return
  event.preventDefault()
  void keep()
}

const question = ref<HTMLElement | null>(null)
watch(weighedAnew, async (asked) => {
  await nextTick()
  if (asked) question.value?.querySelector('button')?.focus()
  else name.value?.focus()
})

async function drop() {
  if (props.item && (await removePart(props.item))) emit('done')
}
</script>

<template>
  <form
    class="part-form"
    :class="{ folded: !item && !unfolded }"
    :aria-label="item ? item.name : 'The next part'"
    @submit.prevent="keep"
    @keydown.enter="onEnter"
    @keydown.esc="emit('done')"
  >
    <div class="fields">
      <label class="name"
        ><span class="faint">{{ item ? 'part' : 'next part, or all of it on one line' }}</span>
        <input
          ref="name"
          v-model="fields.name"
          class="entry"
          :data-first="item ? undefined : ''"
          :aria-label="item ? 'Name' : 'Name of the next part'"
          :placeholder="item ? '' : 'Motor 28 g at 40'"
          autocomplete="off"
          maxlength="200"
        />
      </label>
      <label class="assembly"
        ><span class="faint">in</span>
        <input
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
        <select v-model="fields.pedigree" class="entry" aria-label="How the mass is known">
          <option v-for="each in pedigrees" :key="each.value" :value="each.value">
            {{ each.title }}
          </option>
        </select>
      </label>
      <div class="figures">
        <label
          ><span class="faint">figure, {{ amountUnit }}</span>
          <input
            v-model="fields.amount"
            class="entry figure"
            :aria-label="fields.lot ? 'How much of the lot' : 'Mass'"
            :placeholder="amountUnit === 'dm²' ? '540 x 190' : ''"
            inputmode="decimal"
            autocomplete="off"
          />
        </label>
        <select v-model="fields.lot" class="entry" aria-label="Made of" @change="chooseLot">
          <option value="">by itself</option>
          <option v-for="lot in build?.lots ?? []" :key="lot.id" :value="lot.id">
            of {{ lot.name }}
          </option>
          <optgroup v-if="others.length" label="from the rack">
            <option v-for="each in others" :key="each.lot.id" :value="`rack:${each.lot.id}`">
              of {{ each.lot.name }}
            </option>
          </optgroup>
        </select>
      </div>
      <div class="figures">
        <label
          ><span class="faint">pieces</span>
          <input
            v-model="fields.pieces"
            class="entry figure few"
            aria-label="Pieces"
            inputmode="numeric"
            autocomplete="off"
          />
        </label>
        <template v-if="several">
          <select v-model="fields.of" class="entry" aria-label="The figure is of">
            <option value="all">in all</option>
            <option value="each">each</option>
          </select>
          <span class="faint small times" role="status">{{ multiplied }}</span>
        </template>
      </div>
      <div class="figures">
        <label
          ><span class="faint">{{ units.length.name }} aft</span>
          <input
            v-model="fields.x"
            class="entry figure"
            aria-label="Station"
            inputmode="decimal"
            autocomplete="off"
          />
        </label>
        <select v-model="fields.reference" class="entry" aria-label="Measured from">
          <option value="nose">of nose</option>
          <option value="leading_edge">of leading edge</option>
        </select>
      </div>
      <label
        ><span class="faint">starboard</span>
        <input
          v-model="fields.y"
          class="entry figure few"
          aria-label="To starboard"
          inputmode="decimal"
          autocomplete="off"
        />
      </label>
      <label
        ><span class="faint">up</span>
        <input
          v-model="fields.z"
          class="entry figure few"
          aria-label="Up"
          inputmode="decimal"
          autocomplete="off"
        />
      </label>
      <label class="option"
        ><span class="faint">option</span>
        <input v-model="fields.option" type="checkbox" aria-label="Only in some loadouts" />
      </label>
    </div>
    <div class="verbs small">
      <button type="button" class="plainly under" @click="keep">
        {{ item ? 'keep' : 'add' }} <kbd>Enter</kbd>
      </button>
      <template v-if="item">
        <button type="button" class="plainly under faint" @click="emit('done')">
          leave it as it was <kbd>Esc</kbd>
        </button>
        <button v-if="!weighed" type="button" class="plainly under faint" @click="drop">
          remove
        </button>
        <button type="button" class="plainly under faint" @click="asking = true">
          it was repaired, replaced …
        </button>
        <LifeSheet v-model="asking" :item="item" />
      </template>
      <button v-else type="button" class="plainly under unfold" @click="unfolded = !unfolded">
        {{ unfolded ? 'the line alone' : 'figure by figure' }}
      </button>
      <span v-if="!item" class="faint"
        >“Left panel 540 x 190 of sheet b in Wing at le 80”: after its name a mass, or how much of
        what; then <em>in</em>, <em>at</em>, <em>side</em>, <em>up</em>.</span
      >
    </div>
    <div
      v-if="weighedAnew"
      ref="question"
      class="question"
      role="alertdialog"
      aria-label="It was weighed before"
      @keydown.esc.stop="weighedAnew = null"
    >
      <span>
        {{ item?.name }} was weighed before. Was its figure wrong, or is it another part now?
      </span>
      <button type="button" class="plainly under" @click="figureWasWrong">
        the figure was wrong; the weighing stands
      </button>
      <button type="button" class="plainly under" @click="anotherPart">
        another part, to be weighed anew
      </button>
      <button type="button" class="plainly under faint" @click="weighedAnew = null">
        neither <kbd>Esc</kbd>
      </button>
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

.figures select {
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

.option input {
  width: 24px;
  height: 24px;
  margin: 5px 0;
  accent-color: var(--oak);
}

.unfold {
  display: none;
}

@media (max-width: 700px) {
  .unfold {
    display: inline;
  }

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
