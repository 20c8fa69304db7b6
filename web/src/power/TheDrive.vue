<script setup lang="ts">
import { computed } from 'vue'
import type { Drive } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { fixed, useUnits } from '../shared/units'
import { useDrive } from './useDrive'
import DrivePacks from './DrivePacks.vue'
import DrivePropellers from './DrivePropellers.vue'

const { drive, told, edit } = useDrive()
const { units } = useUnits()

const setMotor = (patch: Partial<Drive['motor']>) =>
  void edit((now) => ({ motor: { ...now.motor, ...patch } }))

const tens = (value: number) => fixed(10 * Math.round(value / 10), 0)

/** What the runs made of a figure that was only listed, or is by the mass where it was not. */
const found = computed(() => {
  const of = (name: string) => told.value?.constants.find((each) => each.name === name)
  const kv = of('kv')
  const ohm = of('winding_ohm')
  if (!kv || !ohm || !drive.value) return ''
  if (!drive.value.runs.some((each) => each.set_aside === null)) {
    if (drive.value.motor.kv !== null) return ''
    return `Nobody said its Kv: by its mass about ${tens(kv.value)} ±${tens(2 * kv.sd)}.`
  }
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
            optional
            :digits="0"
            @kept="(kv) => setMotor({ kv })"
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

    <DrivePropellers />
    <DrivePacks />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  justify-items: start;
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
</style>
