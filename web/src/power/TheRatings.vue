<script setup lang="ts">
import { computed } from 'vue'
import type { Drive } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { useDrive } from './useDrive'

const { drive, edit, set } = useDrive()

type Controller = NonNullable<Drive['controller']>
type Regulator = NonNullable<Drive['regulator']>

const NO_CONTROLLER = { burst_a: null, burst_s: null, least_cells: null, most_cells: null }
const NO_REGULATOR = { drawn_a: null, most_cells: null }
const whole = (value: number | null) => (value === null ? null : Math.round(value))

/** Keep something of the controller; what it stands makes it one. */
function controller(patch: Partial<Controller>) {
  void edit((now) => {
    const next = { ...NO_CONTROLLER, ...now.controller, ...patch }
    return { controller: next.most_a == null ? null : (next as Controller) }
  })
}
function regulator(patch: Partial<Regulator>) {
  void edit((now) => {
    const next = { ...NO_REGULATOR, ...now.regulator, ...patch }
    return { regulator: next.most_a == null ? null : (next as Regulator) }
  })
}

const rows = computed(() => {
  const { controller: of, regulator: bec } = drive.value ?? {}
  return [
    {
      label: 'Controller stands',
      unit: 'A',
      value: of?.most_a ?? null,
      set: (a: number | null) => controller({ most_a: a ?? undefined }),
    },
    ...(of
      ? [
          {
            label: 'In a burst',
            unit: 'A',
            value: of.burst_a,
            set: (a: number | null) => controller({ burst_a: a }),
          },
          {
            label: 'For',
            unit: 's',
            value: of.burst_s,
            set: (s: number | null) => controller({ burst_s: s }),
          },
          {
            label: 'Made for at least',
            unit: 'cells',
            value: of.least_cells,
            set: (n: number | null) => controller({ least_cells: whole(n) }),
          },
          {
            label: 'And at most',
            unit: 'cells',
            value: of.most_cells,
            set: (n: number | null) => controller({ most_cells: whole(n) }),
          },
        ]
      : []),
    {
      label: 'Plug stands',
      unit: 'A',
      value: drive.value?.plug_a ?? null,
      set: (a: number | null) => void set({ plug_a: a }),
    },
    {
      label: 'Wire stands',
      unit: 'A',
      value: drive.value?.wire_a ?? null,
      set: (a: number | null) => void set({ wire_a: a }),
    },
    {
      label: 'Regulator stands',
      unit: 'A',
      value: bec?.most_a ?? null,
      set: (a: number | null) => regulator({ most_a: a ?? undefined }),
    },
    ...(bec
      ? [
          {
            label: 'Servos and receiver draw',
            unit: 'A',
            value: bec.drawn_a,
            set: (a: number | null) => regulator({ drawn_a: a }),
          },
          {
            label: 'Regulator hangs on at most',
            unit: 'cells',
            value: bec.most_cells,
            set: (n: number | null) => regulator({ most_cells: whole(n) }),
          },
        ]
      : []),
  ]
})

const stand = computed(() => drive.value?.stand ?? null)
function cable(patch: Partial<{ port: string; line: string }>) {
  const next = { port: '', baud: 9600, line: '', ...stand.value, ...patch }
  void set({ stand: next.port.trim() ? { ...next, port: next.port.trim() } : null })
}
</script>

<template>
  <section aria-label="What it stands">
    <h2>What it stands</h2>
    <div class="rows">
      <label v-for="row in rows" :key="row.label"
        >{{ row.label }}
        <span>
          <QuantityCell
            :value="row.value"
            kind="number"
            :label="row.label"
            optional
            :digits="1"
            @kept="row.set"
          />
          {{ row.unit }}</span
        ></label
      >
    </div>
    <h3>A stand on a cable</h3>
    <p class="small cable">
      port
      <TextCell
        class="figure"
        :value="stand?.port ?? ''"
        label="Port of the stand"
        placeholder="/dev/ttyUSB0"
        @kept="cable({ port: $event })"
      />
      <template v-if="stand">
        its lines read
        <TextCell
          class="figure"
          :value="stand.line"
          label="Lines of the stand"
          placeholder="{thrust} g {amps} A {volts} V"
          @kept="cable({ line: $event })"
        />
        <span class="faint"
          >{throttle} in per cent, {thrust}, {unit}, {amps}, {volts}, {mah}, {any} what does not
          matter</span
        >
      </template>
    </p>
  </section>
</template>

<style scoped>
section {
  max-width: 420px;
}

.rows {
  display: grid;
  gap: 4px;
  margin: 8px 0 14px;
}

.rows label {
  display: flex;
  justify-content: space-between;
  align-items: center;
  font-size: 14px;
}

/* The figures stand under one another, whatever their unit. */
.rows label > span {
  display: grid;
  grid-template-columns: 72px 34px;
  gap: 6px;
  align-items: center;
}

.rows :deep(.cell) {
  width: 72px;
}

.cable {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
</style>
