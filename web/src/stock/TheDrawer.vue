<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { DrawerThing, NewThing } from '../api/client'
import { once } from '../shared/once'
import QuantityCell from '../shared/QuantityCell.vue'
import { sent } from '../shared/sent'
import DriveListing from './DriveListing.vue'
import TheMark from '../shared/TheMark.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { understand, whyNot } from '../shared/useQuantity'
import { THINGS, useDrawer } from './useDrawer'
import PickList from '../shared/PickList.vue'

const { id } = useBuild()
const { drawer, lay, describe, takeOut, fit } = useDrawer()
const { number, units } = useUnits()

const sorted = computed(() =>
  THINGS.flatMap(({ value }) =>
    (drawer.data.value ?? []).filter((each) => each.thing.kind === value),
  ),
)
const title = (kind: NewThing['kind']) => THINGS.find((each) => each.value === kind)?.title ?? kind
const isHere = (each: DrawerThing) => each.builds.some((where) => where.build === id.value)
const elsewhere = (each: DrawerThing) => each.builds.some((where) => where.build !== id.value)

function say(each: DrawerThing, patch: Partial<NewThing>) {
  void describe(each.thing.id, patch)
}

const fresh = reactive({
  name: '',
  kind: 'motor' as NewThing['kind'],
  listing: '',
  leads: true,
  price: '',
})
const wrong = ref('')
const name = ref<Pick<HTMLElement, 'focus' | 'blur'>>()

/** Enter lays it in the drawer; on a list it opens it. */
function onEnter(event: KeyboardEvent) {
  if (event.defaultPrevented) return
  event.preventDefault()
  void add()
}

const add = once(async () => {
  wrong.value = ''
  try {
    const anew = sent(fresh)
    if (!fresh.name.trim()) throw new Error('Name: what is it')
    const done = await lay({
      name: fresh.name.trim(),
      kind: fresh.kind,
      listing_g: await understand(fresh.listing, 'mass', units.value.mass.name),
      leads_included: fresh.leads,
      price: fresh.price.trim() ? await understand(fresh.price, 'number') : null,
      note: '',
    })
    if (!done) return
    anew({ name: '', listing: '', price: '' })
    if (!fresh.name) name.value?.focus()
  } catch (error) {
    wrong.value = whyNot(error)
  }
})
</script>

<template>
  <section aria-label="Drawer">
    <p class="faint small">
      What moves from plane to plane. Once weighed in one build, it brings its weight along to the
      next.
    </p>
    <div class="wide" tabindex="0" role="group" aria-label="A table, wider than the screen perhaps">
      <v-table class="lined">
        <thead class="faint">
          <tr>
            <th>thing</th>
            <th>what</th>
            <th>listing, {{ units.mass.name }}</th>
            <th>with its leads</th>
            <th class="right">weighs</th>
            <th>price</th>
            <th>sits in</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="each in sorted" :key="each.thing.id" :data-thing="each.thing.id">
            <td>
              <strong>{{ each.thing.name }}</strong>
            </td>
            <td class="faint">
              {{ title(each.thing.kind) }}
              <DriveListing
                v-if="each.thing.kind === 'pack' || each.thing.kind === 'motor'"
                :thing="each.thing"
                @said="say(each, $event)"
              />
            </td>
            <td>
              <QuantityCell
                :value="each.thing.listing_g"
                kind="mass"
                :unit="units.mass.name"
                :base="units.mass.base"
                :label="`${each.thing.name}, listing`"
                @kept="$event !== null && say(each, { listing_g: $event })"
              />
            </td>
            <td>
              <v-checkbox-btn
                :model-value="each.thing.leads_included"
                :aria-label="`${each.thing.name}: the listing counts its leads`"
                @update:model-value="say(each, { leads_included: $event })"
              />
            </td>
            <td class="right">
              <TheMark :mark="each.weighed ? 'weighed' : 'listed'" />
              <span class="figure"
                >{{ number(each.now.value, 'mass') }}
                <span class="faint">±{{ number(2 * each.now.doubt, 'mass') }}</span></span
              >
            </td>
            <td>
              <QuantityCell
                :value="each.thing.price"
                kind="number"
                optional
                :label="`${each.thing.name}, price`"
                @kept="say(each, { price: $event })"
              />
            </td>
            <td>
              <span v-if="!each.builds.length" class="faint">the drawer</span>
              <template v-for="(where, at) in each.builds" :key="where.build + where.id"
                ><template v-if="at">, </template
                ><router-link :to="{ name: 'plan', params: { id: where.build } }">{{
                  where.build === id ? 'this plane' : where.name
                }}</router-link></template
              >
            </td>
            <td class="acts small">
              <template v-if="!isHere(each)">
                <v-verb @click="fit(each.thing.id, elsewhere(each))">
                  {{ elsewhere(each) ? 'move it here' : 'fit it' }}
                </v-verb>
                <v-verb v-if="elsewhere(each)" @click="fit(each.thing.id, false)">
                  share it
                </v-verb>
              </template>
              <v-verb v-if="!each.builds.length" class="faint" @click="takeOut(each.thing.id)">
                throw out
              </v-verb>
            </td>
          </tr>
          <tr @keydown.enter="onEnter">
            <td>
              <v-text-field
                ref="name"
                v-model="fresh.name"
                class="entry"
                aria-label="Name of the next thing"
                placeholder="next thing"
                maxlength="80"
              />
            </td>
            <td>
              <PickList v-model="fresh.kind" :items="THINGS" aria-label="What it is" />
            </td>
            <td>
              <v-text-field
                v-model="fresh.listing"
                class="entry figure few"
                inputmode="decimal"
                aria-label="Its listing"
              />
            </td>
            <td>
              <v-checkbox-btn v-model="fresh.leads" aria-label="The listing counts its leads" />
            </td>
            <td />
            <td>
              <v-text-field
                v-model="fresh.price"
                class="entry figure few"
                inputmode="decimal"
                aria-label="Its price"
              />
            </td>
            <td colspan="2">
              <v-verb @click="add"> into the drawer <kbd>Enter</kbd> </v-verb>
            </td>
          </tr>
        </tbody>
      </v-table>
    </div>
    <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
    <p v-if="drawer.isError.value" class="faint">
      The drawer does not answer.
      <v-verb @click="drawer.refetch()">try again</v-verb>
    </p>
    <p class="faint small">
      Never use a puffed or crashed pack; take the pack out before working on the plane.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
}

td :deep(.cell) {
  width: 74px;
}

.right :deep(.mark) {
  width: 15px;
  vertical-align: -4px;
  margin-right: 4px;
}

.acts button {
  margin-right: 12px;
}

.few {
  width: 74px;
}

a {
  color: inherit;
}
</style>
