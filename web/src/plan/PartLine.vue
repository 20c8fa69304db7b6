<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { answered, api, type Item, type Lot, type NewItem, type Opened } from '../api/client'
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

async function keep() {
  if (busy.value) return
  busy.value = true
  const typed = (await takeShelved()) ? await part() : undefined
  if (typed && isAnother(typed)) weighedAnew.value = typed
  else if (typed) {
    const kept = props.item
      ? await changeItem({ ...typed, id: props.item.id })
      : await addItem(typed)
    if (kept && props.item) emit('done')
    else if (kept) {
      next()
      await nextTick()
      name.value?.focus()
    }
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
  <tr class="line" @keydown.enter="onEnter" @keydown.esc="emit('done')">
    <td>
      <input
        ref="name"
        v-model="fields.name"
        class="entry"
        :aria-label="item ? 'Name' : 'Name of the next part'"
        :placeholder="item ? '' : 'next part'"
        maxlength="80"
      />
    </td>
    <td>
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
    </td>
    <td>
      <select v-model="fields.pedigree" class="entry" aria-label="How the mass is known">
        <option v-for="each in pedigrees" :key="each.value" :value="each.value">
          {{ each.title }}
        </option>
      </select>
    </td>
    <td class="figures">
      <span>
        <input
          v-model="fields.amount"
          class="entry figure"
          :aria-label="fields.lot ? 'How much of the lot' : 'Mass'"
          :placeholder="amountUnit === 'dm²' ? '540 x 190' : ''"
          inputmode="decimal"
        />
        <span class="faint">{{ amountUnit }}</span>
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
      </span>
    </td>
    <td>
      <input
        v-model="fields.pieces"
        class="entry figure few"
        aria-label="Pieces"
        inputmode="numeric"
      />
      <template v-if="several">
        <select v-model="fields.of" class="entry" aria-label="The figure is of">
          <option value="all">in all</option>
          <option value="each">each</option>
        </select>
        <span class="faint small times" role="status">{{ multiplied }}</span>
      </template>
    </td>
    <td class="figures" colspan="2">
      <span>
        <input
          v-model="fields.x"
          class="entry figure"
          aria-label="Station"
          inputmode="decimal"
          placeholder="mm aft"
        />
        <select v-model="fields.reference" class="entry" aria-label="Measured from">
          <option value="nose">of nose</option>
          <option value="leading_edge">of leading edge</option>
        </select>
      </span>
    </td>
    <td>
      <input
        v-model="fields.y"
        class="entry figure few"
        aria-label="To starboard"
        inputmode="decimal"
      />
    </td>
    <td>
      <input v-model="fields.z" class="entry figure few" aria-label="Up" inputmode="decimal" />
    </td>
    <td><input v-model="fields.option" type="checkbox" aria-label="Only in some loadouts" /></td>
    <td class="verbs">
      <button v-if="!item" type="button" class="plainly under" @click="keep">
        add <kbd>Enter</kbd>
      </button>
    </td>
  </tr>
  <tr v-if="item" class="line" @keydown.esc="emit('done')">
    <td colspan="11" class="verbs">
      <button type="button" class="plainly under" @click="keep">keep <kbd>Enter</kbd></button>
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
    </td>
  </tr>
  <tr v-if="weighedAnew" class="line" @keydown.esc="weighedAnew = null">
    <td colspan="11">
      <div ref="question" class="question" role="alertdialog" aria-label="It was weighed before">
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
    </td>
  </tr>
  <tr v-if="wrong" class="line">
    <td colspan="11" class="wrong" role="alert">{{ wrong }}</td>
  </tr>
</template>

<style scoped>
td {
  padding: 3px 6px 3px 0;
  background: var(--paper);
}

.figure {
  text-align: right;
}

.entry {
  width: 100%;
  min-width: 70px;
}

.line .few {
  min-width: 40px;
  max-width: 50px;
}

.figures > span {
  display: flex;
  align-items: center;
  gap: 4px;
}

.figures input,
.figures select {
  width: auto;
  max-width: 92px;
}

.figures select {
  max-width: 118px;
}

.question {
  position: sticky;
  left: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  width: fit-content;
  max-width: calc(100vw - var(--rule-width) - 48px);
  white-space: normal;
}

.verbs {
  white-space: nowrap;
}

.times {
  white-space: nowrap;
}

.verbs button + button {
  margin-left: 16px;
}
</style>
