<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Lot } from '../api/client'
import TheseWords from '../shared/TheseWords.vue'
import { useBuild } from '../shared/useBuild'
import { KINDS, useRack } from '../shared/useRack'
import LotRow from './LotRow.vue'
import LotSheet from './LotSheet.vue'
import NextLot from './NextLot.vue'
import OnTheRack from './OnTheRack.vue'

const { build, assessment } = useBuild()
const { rack, lots, told, others, builds, take, hang, putOnRack, describe, leave } = useRack()

const chosen = ref<string>()
const lot = computed(() => lots.value.find((each) => each.id === chosen.value) ?? lots.value[0])

const sorted = computed(() =>
  KINDS.flatMap(({ value }) => lots.value.filter((each) => each.kind === value)),
)
const damp = computed(() => assessment.value?.damp.find((each) => each.lot === lot.value?.id))

/** Bound to its lot: a figure that is read late is not said of the next. */
const saidOf = (id: string) => (patch: Partial<Lot>) => void describe(id, patch)

function newest() {
  chosen.value = lots.value.at(-1)?.id
}
async function takeDown(id: string) {
  if (await take(id)) newest()
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
      <NextLot :hang="hang" @hung="newest" />
      <h2 class="more">On the rack</h2>
      <OnTheRack :rack="rack" :others="others" @take="takeDown" />
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

.lots {
  margin: 6px 0 10px;
}

.blank {
  max-width: 56ch;
  padding: 8px 0 14px;
}

.more {
  margin-top: 26px;
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
}
</style>
