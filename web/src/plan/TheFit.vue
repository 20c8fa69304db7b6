<script setup lang="ts">
import { computed } from 'vue'
import limits from '../api/limits.json'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { useUnits } from '../shared/units'
import BayPicture from './BayPicture.vue'
import FitRow from './FitRow.vue'
import { NO_FIT, useFit, type Bay } from './useFit'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { bays, fitted, others, parts, told, name, notes, setBay, addBay, dropBay, setFit } = useFit()
const { units, quantity } = useUnits()

const SIZES: { key: keyof Bay; title: string; kind: 'station' | 'length' }[] = [
  { key: 'x_mm', title: 'front, from nose', kind: 'station' },
  { key: 'z_mm', title: 'middle, up', kind: 'station' },
  { key: 'length_mm', title: 'long inside', kind: 'length' },
  { key: 'width_mm', title: 'wide inside', kind: 'length' },
  { key: 'height_mm', title: 'high inside', kind: 'length' },
]
const size = (bay: Bay, key: keyof Bay) => bay[key] as number

const room = computed(() => {
  const all = told.value?.in_bays ?? []
  return new Map(
    all.map((each) => [
      each.part,
      each.clearance_mm < 0
        ? `${quantity(-each.clearance_mm, 'length')} too large for ${name(each.bay)}`
        : `${quantity(each.clearance_mm, 'length')} of room in ${name(each.bay)}; ${each.how_many} such would go in`,
    ]),
  )
})
const reach = computed(() => {
  const all = told.value?.reaches ?? []
  return new Map(
    all.map((each) => {
      const [wanted, most] = [each.wanted_mm, each.most_mm].map((mm) => quantity(mm, 'length'))
      return [
        each.part,
        `wants ${wanted}${most === wanted ? '' : `, at most ${most} over its slide`}`,
      ]
    }),
  )
})

function begin(id: string) {
  const part = parts.value.find((each) => each.id === id)
  if (part) setFit(part, NO_FIT)
}
</script>

<template>
  <div class="fit">
    <section aria-label="What takes up room">
      <p class="faint small">
        A thing lies about its station. A lead is wanted along, across and up,
        {{ Math.round(100 * (limits.fit.loose - 1)) }} % of it loose.
      </p>
      <label class="small"
        >say what takes up
        <PickList
          :model-value="''"
          :items="named(others, 'a part')"
          aria-label="Say what takes up"
          @update:model-value="begin"
      /></label>
      <ul>
        <FitRow
          v-for="part in fitted"
          :key="part.id"
          :part="part"
          :bays="bays"
          :parts="parts"
          :room="room.get(part.id)"
          :reach="reach.get(part.id)"
          @fit="setFit(part, $event)"
        />
      </ul>
    </section>
    <section aria-label="Bays">
      <h3>Does it fit</h3>
      <p v-if="!told || (!bays.length && !fitted.length)" class="faint small">
        Give a bay its inner size and a part its own: what goes in, how many of it, and whether its
        lead reaches is told here, also while it is dragged on the Balance.
      </p>
      <p v-else-if="!notes.length" role="status">Nothing is in the way of anything.</p>
      <ul v-else class="notes" aria-label="What does not fit">
        <li v-for="words in notes" :key="words" class="asked">{{ words }}</li>
      </ul>
      <div v-for="bay in bays" :key="bay.id" class="bay">
        <div class="head">
          <TextCell
            class="name"
            :value="bay.name"
            :label="`Name of ${bay.name}`"
            @kept="$event && setBay(bay.id, { name: $event })"
          />
          <v-verb class="bare faint" :aria-label="`Remove ${bay.name}`" @click="dropBay(bay)">
            ✕
          </v-verb>
        </div>
        <BayPicture :bay="bay" :parts="fitted.filter((each) => each.fit?.bay === bay.id)" />
        <div class="sizes">
          <label v-for="each in SIZES" :key="each.key" class="small"
            ><span class="faint">{{ each.title }}</span>
            <QuantityCell
              :value="size(bay, each.key)"
              :kind="each.kind"
              :label="`${bay.name}, ${each.title}`"
              :unit="units.length.name"
              :base="units.length.base"
              @kept="$event !== null && setBay(bay.id, { [each.key]: $event })"
            />
          </label>
        </div>
      </div>
      <p><v-btn @click="addBay">One more bay</v-btn></p>
    </section>
  </div>
</template>

<style scoped>
.fit {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 36px;
}

section {
  display: grid;
  gap: 12px;
  align-content: start;
}

.notes {
  display: grid;
  gap: 8px;
}

.bay {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}

.head {
  display: flex;
  gap: 10px;
}

.head .name {
  flex: 1;
  font-weight: 650;
}

.head button {
  min-width: 28px;
}

.sizes {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
}

.sizes label {
  display: grid;
}

.sizes :deep(.cell) {
  width: 84px;
}

@media (max-width: 900px) {
  .fit {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
