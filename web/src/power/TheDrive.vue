<script setup lang="ts">
import { computed } from 'vue'
import type { Drive } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { freshId } from '../shared/freshId'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import { useDrive } from './useDrive'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { drive, told, edit, takeAway } = useDrive()
const { build } = useBuild()
const { units } = useUnits()

type Pack = Drive['packs'][number]
const ANOTHER = { name: 'Pack', cells: 3, capacity_mah: 1000, c_rating: null, part: null }
type Propeller = Drive['propellers'][number]

const parts = computed(() => (build.value?.parts ?? []).filter((each) => !each.retired))
const run = (kind: 'pack' | 'propeller', id: string) =>
  (drive.value?.runs ?? []).some((each) => each[kind] === id)

const setMotor = (patch: Partial<Drive['motor']>) =>
  void edit((now) => ({ motor: { ...now.motor, ...patch } }))
const setPack = (id: string, patch: Partial<Pack>) =>
  void edit((now) => ({ packs: now.packs.map((p) => (p.id === id ? { ...p, ...patch } : p)) }))
const setPropeller = (id: string, patch: Partial<Propeller>) =>
  void edit((now) => ({
    propellers: now.propellers.map((p) => (p.id === id ? { ...p, ...patch } : p)),
  }))
const fit = (id: string) =>
  void edit(({ propellers: all }) => ({
    propellers: [...all.filter((each) => each.id === id), ...all.filter((each) => each.id !== id)],
  }))
const addPack = () =>
  void edit((now) => ({
    packs: [...now.packs, { id: freshId(), ...ANOTHER }],
  }))
const addPropeller = () =>
  void edit((now) => ({
    propellers: [
      ...now.propellers,
      { id: freshId(), name: '7 x 4', diameter_mm: 177.8, pitch_mm: 101.6 },
    ],
  }))

/** What the runs made of a figure that was only listed. */
const found = computed(() => {
  const of = (name: string) => told.value?.constants.find((each) => each.name === name)
  const kv = of('kv')
  const ohm = of('winding_ohm')
  if (!kv || !ohm || !drive.value?.runs.some((each) => each.set_aside === null)) return ''
  return (
    `The runs say: Kv ${fixed(kv.value, 0)} ±${fixed(2 * kv.sd, 0)}, ` +
    `windings ${fixed(1000 * ohm.value, 0)} ±${fixed(2000 * ohm.sd, 0)} mΩ.`
  )
})
</script>

<template>
  <section v-if="drive" aria-label="The drive">
    <h2>The drive</h2>
    <div class="rows">
      <label
        >motor Kv
        <span
          ><QuantityCell
            :value="drive.motor.kv"
            kind="number"
            label="Motor Kv"
            :digits="0"
            @kept="(kv) => kv !== null && setMotor({ kv })"
          />
          rpm/V</span
        ></label
      >
      <label
        >motor mass
        <span
          ><QuantityCell
            :value="drive.motor.mass_g"
            kind="mass"
            label="Motor mass"
            :unit="units.mass.name"
            :base="units.mass.base"
            :digits="1"
            @kept="(mass_g) => mass_g !== null && setMotor({ mass_g })"
          />
          {{ units.mass.name }}</span
        ></label
      >
      <label
        >motors on one pack
        <span
          ><QuantityCell
            :value="drive.motors"
            kind="number"
            label="Motors on one pack"
            :digits="0"
            @kept="
              (motors) => motors !== null && void edit(() => ({ motors: Math.round(motors) }))
            "
        /></span>
      </label>
      <label
        >motor stands
        <span
          ><QuantityCell
            :value="drive.motor.most_a"
            kind="number"
            label="Motor stands"
            optional
            :digits="1"
            @kept="(most_a) => setMotor({ most_a })"
          />
          A</span
        ></label
      >
    </div>
    <p v-if="found" class="small">{{ found }}</p>

    <h3>Propellers</h3>
    <div
      v-for="(each, at) in drive.propellers"
      :key="each.id"
      class="thing"
      :data-propeller="each.id"
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
        v-if="at > 0 && !run('propeller', each.id)"
        class="small faint"
        @click="takeAway('propellers', each)"
      >
        remove
      </v-verb>
    </div>
    <v-verb class="small" @click="addPropeller"> another propeller </v-verb>

    <h3>Packs</h3>
    <div v-for="each in drive.packs" :key="each.id" class="thing" :data-pack="each.id">
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
      <v-verb v-if="!run('pack', each.id)" class="small faint" @click="takeAway('packs', each)">
        remove
      </v-verb>
    </div>
    <v-verb class="small" @click="addPack">another pack</v-verb>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  justify-items: start;
}

h3 {
  font-size: 15px;
  margin: 8px 0 0;
}

.rows {
  display: grid;
  gap: 4px;
  width: 100%;
}

.rows label {
  display: flex;
  justify-content: space-between;
  align-items: center;
  font-size: 14px;
}

.rows label > span {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-width: 130px;
}

:deep(.cell) {
  width: 72px;
}

/* Three figures with their units on one line. */
.thing > span :deep(.cell) {
  width: 60px;
}

.thing {
  display: grid;
  gap: 4px;
  width: 100%;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  justify-items: start;
}

label .pick {
  max-width: 190px;
}
</style>
