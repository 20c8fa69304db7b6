<script setup lang="ts">
import { computed, reactive, watch } from 'vue'
import type { Drive } from '../api/client'
import PickList from '../shared/PickList.vue'
import QuantityCell from '../shared/QuantityCell.vue'
import DriveList from './DriveList.vue'
import TextCell from '../shared/TextCell.vue'
import { named } from '../shared/choices'
import { freshId } from '../shared/freshId'
import { plainly } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { useDrive } from './useDrive'
import { useOneMore } from './useOneMore'

const { drive, told, edit, takeAway } = useDrive()
const { build } = useBuild()

type Pack = Drive['packs'][number]

const parts = computed(() => (build.value?.parts ?? []).filter((each) => !each.retired))
const run = (id: string) => (drive.value?.runs ?? []).some((each) => each.pack === id)
const setPack = (id: string, patch: Partial<Pack>) =>
  void edit((now) => ({ packs: now.packs.map((p) => (p.id === id ? { ...p, ...patch } : p)) }))

/** One more is listed once somebody said what it holds: nothing is told of one made up. */
const unlisted = computed(() => told.value?.unlisted ?? [])
const { open, wrong, ask, leave, listed, missing } = useOneMore()
const another = computed(
  () => open.value || unlisted.value.length > 0 || drive.value?.packs.length === 0,
)
const fresh = reactive({
  part: '',
  cells: null as number | null,
  capacity_mah: null as number | null,
})
/** What a part's name says is there already. */
function choose(part: string) {
  const named = unlisted.value.find((each) => each.part === part)
  Object.assign(fresh, {
    part,
    cells: named?.cells ?? null,
    capacity_mah: named?.capacity_mah ?? null,
  })
}
watch(
  () => unlisted.value[0]?.part ?? '',
  (first) => choose(first),
  { immediate: true },
)
async function add() {
  const { part, capacity_mah } = fresh
  const cells = Math.round(fresh.cells ?? 0)
  if (!cells || capacity_mah === null) return missing('Say its cells and what it holds.')
  const of = parts.value.find((each) => each.id === part)?.name
  const name = (of ?? `${cells}-cell ${plainly(capacity_mah)}`).slice(0, 80)
  const pack = { id: freshId(), name, cells, capacity_mah, c_rating: null, part: part || null }
  if (!(await edit((now) => ({ packs: [...now.packs, pack] })))) return
  choose(unlisted.value[0]?.part ?? '')
  await listed(pack.id)
}
</script>

<template>
  <DriveList v-if="drive" ref="list" title="Packs">
    <div
      v-for="each in drive.packs"
      :key="each.id"
      class="thing"
      :data-pack="each.id"
      :data-listed="each.id"
    >
      <TextCell
        :value="each.name"
        label="Pack"
        @kept="(name) => name.trim() && setPack(each.id, { name: name.trim() })"
      />
      <span class="small">
        <QuantityCell
          :value="each.cells"
          kind="number"
          label="Cells"
          :digits="0"
          @kept="(cells) => cells !== null && setPack(each.id, { cells: Math.round(cells) })"
        />
        cells
        <QuantityCell
          :value="each.capacity_mah"
          kind="number"
          label="Capacity"
          :digits="0"
          @kept="(capacity_mah) => capacity_mah !== null && setPack(each.id, { capacity_mah })"
        />
        mAh
        <QuantityCell
          :value="each.c_rating"
          kind="number"
          label="C rating"
          optional
          :digits="0"
          @kept="(c_rating) => setPack(each.id, { c_rating })"
        />
        C
      </span>
      <label class="small"
        >is the part
        <PickList
          aria-label="Is the part"
          :items="named(parts, 'none of this plane')"
          :model-value="each.part ?? ''"
          @update:model-value="setPack(each.id, { part: $event || null })"
      /></label>
      <v-verb v-if="!run(each.id)" class="small faint" @click="takeAway('packs', each)">
        remove
      </v-verb>
    </div>
    <div v-if="another" class="thing" data-another>
      <label class="small"
        >is the part
        <PickList
          :model-value="fresh.part"
          aria-label="Another pack is the part"
          :items="named(parts, 'none of this plane')"
          @update:model-value="choose($event)"
      /></label>
      <span class="small">
        <QuantityCell
          :value="fresh.cells"
          kind="number"
          label="Cells of another"
          :digits="0"
          optional
          @kept="fresh.cells = $event"
        />
        cells
        <QuantityCell
          :value="fresh.capacity_mah"
          kind="number"
          label="Capacity of another"
          :digits="0"
          optional
          @kept="fresh.capacity_mah = $event"
        />
        mAh
      </span>
      <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
      <span class="small verbs">
        <v-btn @click="add">list it</v-btn>
        <v-verb v-if="open" class="faint" @click="leave">leave it</v-verb>
      </span>
    </div>
    <v-verb v-else class="small" data-more @click="ask">another pack</v-verb>
  </DriveList>
</template>
