<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { Lot } from '../api/client'
import { once } from '../shared/once'
import { sent } from '../shared/sent'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { understand, whyNot } from '../shared/useQuantity'
import LotRow from './LotRow.vue'
import LotSheet from './LotSheet.vue'
import { FACES, KINDS, useRack } from '../shared/useRack'
import TheseWords from '../shared/TheseWords.vue'
import PickList from '../shared/PickList.vue'
import { titled } from '../shared/choices'

const { build, assessment } = useBuild()
const { rack, lots, told, others, builds, take, hang, putOnRack, describe, leave } = useRack()
const { rate, perUnit } = useUnits()

const chosen = ref<string>()
const lot = computed(() => lots.value.find((each) => each.id === chosen.value) ?? lots.value[0])

const sorted = computed(() =>
  KINDS.flatMap(({ value }) => lots.value.filter((each) => each.kind === value)),
)
const hanging = computed(() =>
  KINDS.map((kind) => ({
    ...kind,
    lots: others.value.filter((each) => each.lot.kind === kind.value),
  })).filter((kind) => kind.lots.length),
)
const damp = computed(() => assessment.value?.damp.find((each) => each.lot === lot.value?.id))

const fresh = reactive({ name: '', kind: 'foam' as Lot['kind'], constant: '', faces: 'both' })
const wrong = ref('')
/** A figure to go by: a board, a bead, a stick. */
const USUAL = { dm2: 4.6, m: 2, piece: 5 }
const unit = computed(() => KINDS.find((each) => each.value === fresh.kind)?.unit ?? 'piece')

const add = once(async () => {
  wrong.value = ''
  try {
    const anew = sent(fresh)
    if (!fresh.name.trim()) throw new Error('Name: like the shop and the day it was bought')
    const { kind, unit: each } = rate(unit.value)
    const constant = await understand(fresh.constant, kind, each)
    const hung = await hang({
      name: fresh.name.trim(),
      kind: fresh.kind,
      unit: unit.value,
      constant,
      source: 'typed',
      faces: fresh.kind === 'foam' ? (fresh.faces as 'both') : null,
    })
    if (!hung) return
    anew({ name: '', constant: '' })
    chosen.value = lots.value.at(-1)?.id
  } catch (error) {
    wrong.value = whyNot(error)
  }
})

/** Bound to its lot: a figure that is read late is not said of the next. */
const saidOf = (id: string) => (patch: Partial<Lot>) => void describe(id, patch)

async function takeDown(id: string) {
  if (await take(id)) chosen.value = lots.value.at(-1)?.id
}
</script>

<template>
  <div class="rack">
    <section aria-label="Lots of this build">
      <h2>In this build</h2>
      <TheseWords :of="['lot']" />
      <p v-if="!lots.length" class="faint blank">
        Nothing is taken from the rack yet. Take what this plane is made of from below: everything
        cut from one lot shares its grams, and one weighed square moves all of it.
      </p>
      <ul v-else class="lots">
        <li v-for="each in sorted" :key="each.id">
          <LotRow
            :lot="each"
            :now="told.get(each.id)"
            :chosen="each.id === lot?.id"
            @choose="chosen = each.id"
          />
        </li>
      </ul>
      <form class="next" @submit.prevent="add">
        <v-text-field
          v-model="fresh.name"
          class="entry"
          aria-label="Name of the next lot"
          placeholder="a lot that is not on the rack"
          maxlength="80"
        />
        <PickList v-model="fresh.kind" :items="KINDS" aria-label="What it is" />
        <PickList
          v-if="fresh.kind === 'foam'"
          v-model="fresh.faces"
          :items="titled(FACES)"
          aria-label="Faces"
        />
        <span>
          <v-text-field
            v-model="fresh.constant"
            class="entry figure few"
            :aria-label="`How heavy, ${rate(unit).name}`"
            inputmode="decimal"
            :placeholder="perUnit(USUAL[unit], unit)"
          />
          <span class="faint small">{{ rate(unit).name }}</span>
        </span>
        <v-verb type="submit">hang it up <kbd>Enter</kbd></v-verb>
      </form>
      <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>

      <h2 class="more">On the rack</h2>
      <p v-if="rack.isPending.value" class="faint">Looking along the rack …</p>
      <p v-else-if="rack.isError.value" class="faint">
        The rack does not answer.
        <v-verb @click="rack.refetch()">try again</v-verb>
      </p>
      <div v-for="kind in hanging" :key="kind.value" class="kind">
        <h3 class="faint">{{ kind.title }}</h3>
        <ul>
          <li v-for="each in kind.lots" :key="each.lot.id">
            <button
              type="button"
              class="plainly shelved"
              :aria-label="`Take ${each.lot.name}`"
              @click="takeDown(each.lot.id)"
            >
              <span>{{ each.lot.name }}</span>
              <span class="figure small"
                >{{ perUnit(each.now.value, each.lot.unit) }}
                <span class="faint"
                  >±{{ perUnit(2 * each.now.doubt, each.lot.unit) }}
                  {{ rate(each.lot.unit).name }}</span
                ></span
              >
              <span class="under faint small">take</span>
            </button>
          </li>
        </ul>
      </div>
    </section>
    <LotSheet
      v-if="lot && build"
      :key="lot.id"
      :lot="lot"
      :now="told.get(lot.id)"
      :damp="damp"
      :builds="lot.rack ? (builds.get(lot.rack) ?? []) : []"
      class="sheet"
      :on-describe="saidOf(lot.id)"
      @shelve="putOnRack(lot.id)"
      @leave="leave(lot.id)"
    />
  </div>
</template>

<style scoped>
.rack {
  display: grid;
  grid-template-columns: minmax(0, 7fr) minmax(0, 5fr);
  gap: 32px;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

.lots {
  margin: 6px 0 10px;
}

.blank {
  max-width: 56ch;
  padding: 8px 0 14px;
}

.next {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}

.next > .entry:first-child {
  flex: 1;
  min-width: 180px;
}

.few {
  width: 70px;
  margin-right: 6px;
}

.more {
  margin-top: 26px;
}

.kind {
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr);
  border-top: 1px solid var(--line);
  padding: 4px 0;
}

.kind h3 {
  font-weight: 400;
  padding-top: 4px;
}

.shelved {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 36px;
  gap: 12px;
  width: 100%;
  padding: 3px 6px;
}

.shelved:hover {
  background: var(--sea-wash);
}

.sheet {
  position: sticky;
  top: calc(var(--rods-height) + 10px);
  align-self: start;
  max-height: calc(100dvh - var(--rods-height) - var(--line-height, 0px) - 20px);
  overflow-y: auto;
}

@media (max-width: 1000px) {
  .rack {
    grid-template-columns: minmax(0, 1fr);
  }

  .sheet {
    position: static;
    max-height: none;
    order: -1;
  }

  .kind {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
