<script setup lang="ts">
import { computed, nextTick, onMounted, ref } from 'vue'
import type { Item, Lot } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { useRack } from '../shared/useRack'
import LifeSheet from './LifeSheet.vue'
import { PEDIGREES, usePartLine } from './usePartLine'

const props = defineProps<{ item?: Item }>()
const emit = defineEmits<{ done: [] }>()

const { build, addItem, changeItem, removeItem } = useBuild()
const { lots, others, take } = useRack()
const { fields, wrong, amountUnit, part, next } = usePartLine(props.item)

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

async function chooseLot() {
  const [, shelved] = /^rack:(.*)$/.exec(fields.lot) ?? []
  if (shelved) {
    const taken = await take(shelved)
    fields.lot = (taken && lots.value.find((each) => each.rack === shelved)?.id) || ''
  }
  const lot = build.value?.lots.find((each) => each.id === fields.lot)
  if (lot && fields.pedigree === 'guess') fields.pedigree = KNOWN_BY[lot.kind]
}

async function keep() {
  if (busy.value) return
  busy.value = true
  const typed = await part()
  if (typed) {
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

async function drop() {
  if (props.item && (await removeItem(props.item.id))) emit('done')
}
</script>

<template>
  <tr class="line" @keydown.enter.prevent="keep" @keydown.esc="emit('done')">
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
      <button type="button" class="plainly under" @click="keep">
        {{ item ? 'keep' : 'add' }} <kbd>Enter</kbd>
      </button>
      <button v-if="item && !weighed" type="button" class="plainly under faint" @click="drop">
        remove
      </button>
      <button v-if="item" type="button" class="plainly under faint" @click="asking = true">
        it was repaired, replaced …
      </button>
      <LifeSheet v-if="item" v-model="asking" :item="item" />
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

.verbs {
  white-space: nowrap;
}

.verbs button + button {
  margin-left: 6px;
}
</style>
