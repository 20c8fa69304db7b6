<script setup lang="ts">
import { computed, reactive } from 'vue'
import type { Drive } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import DriveList from './DriveList.vue'
import TextCell from '../shared/TextCell.vue'
import { freshId } from '../shared/freshId'
import { INCH_MM, plainly, useUnits } from '../shared/units'
import { useDrive } from './useDrive'
import { useOneMore } from './useOneMore'

const { drive, edit, takeAway } = useDrive()
const { units } = useUnits()

type Propeller = Drive['propellers'][number]

const run = (id: string) => (drive.value?.runs ?? []).some((each) => each.propeller === id)
const setPropeller = (id: string, patch: Partial<Propeller>) =>
  void edit((now) => ({
    propellers: now.propellers.map((p) => (p.id === id ? { ...p, ...patch } : p)),
  }))
const fit = (id: string) =>
  void edit(({ propellers: all }) => ({
    propellers: [...all.filter((each) => each.id === id), ...all.filter((each) => each.id !== id)],
  }))

/** One more is listed once somebody said how large it is: nothing is told of one made up. */
const { open, wrong, ask, leave, listed, missing } = useOneMore()
const another = computed(() => open.value || drive.value?.propellers.length === 0)
const size = reactive({ diameter_mm: null as number | null, pitch_mm: null as number | null })
async function add() {
  const { diameter_mm, pitch_mm } = size
  if (diameter_mm === null || pitch_mm === null) return missing('Say its diameter and its pitch.')
  const name = [diameter_mm, pitch_mm].map((mm) => plainly(mm / INCH_MM)).join(' x ')
  const fresh = { id: freshId(), name, diameter_mm, pitch_mm }
  if (!(await edit((now) => ({ propellers: [...now.propellers, fresh] })))) return
  Object.assign(size, { diameter_mm: null, pitch_mm: null })
  await listed(fresh.id)
}
</script>

<template>
  <DriveList v-if="drive" ref="list" title="Propellers">
    <div
      v-for="(each, at) in drive.propellers"
      :key="each.id"
      class="thing"
      :data-propeller="each.id"
      :data-listed="each.id"
    >
      <TextCell
        :value="each.name"
        label="Propeller"
        @kept="(name) => name.trim() && setPropeller(each.id, { name: name.trim() })"
      />
      <span class="small">
        <QuantityCell
          :value="each.diameter_mm"
          kind="length"
          label="Diameter"
          :unit="units.length.name"
          :base="units.length.base"
          :digits="1"
          @kept="(diameter_mm) => diameter_mm !== null && setPropeller(each.id, { diameter_mm })"
        />
        x
        <QuantityCell
          :value="each.pitch_mm"
          kind="length"
          label="Pitch"
          :unit="units.length.name"
          :base="units.length.base"
          :digits="1"
          @kept="(pitch_mm) => pitch_mm !== null && setPropeller(each.id, { pitch_mm })"
        />
        {{ units.length.name }}
      </span>
      <span v-if="at === 0" class="small faint">fitted</span>
      <v-verb v-else class="small" @click="fit(each.id)">fit it</v-verb>
      <v-verb
        v-if="at > 0 && !run(each.id)"
        class="small faint"
        @click="takeAway('propellers', each)"
      >
        remove
      </v-verb>
    </div>
    <div v-if="another" class="thing" data-another>
      <span class="small">
        <QuantityCell
          :value="size.diameter_mm"
          kind="length"
          label="Diameter of another"
          unit="in"
          :base="INCH_MM"
          :digits="2"
          optional
          @kept="size.diameter_mm = $event"
        />
        x
        <QuantityCell
          :value="size.pitch_mm"
          kind="length"
          label="Pitch of another"
          unit="in"
          :base="INCH_MM"
          :digits="2"
          optional
          @kept="size.pitch_mm = $event"
        />
        in
      </span>
      <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
      <span class="small verbs">
        <v-btn @click="add">list it</v-btn>
        <v-verb v-if="open" class="faint" @click="leave">leave it</v-verb>
      </span>
    </div>
    <v-verb v-else class="small" data-more @click="ask">another propeller</v-verb>
  </DriveList>
</template>
