<script setup lang="ts">
import { computed } from 'vue'
import type { Build } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { numbered } from '../shared/numbered'
import { useBuild } from '../shared/useBuild'
import CheckWeight from './CheckWeight.vue'
import OneMoreMass from './OneMoreMass.vue'
import PickList from '../shared/PickList.vue'
import { asSaid } from '../shared/choices'
import { useUnits } from '../shared/units'

type Scale = Build['scales'][number]

const { build, change, takeOff } = useBuild()
const { units } = useUnits()
const scales = computed(() => build.value?.scales ?? [])

function set(id: string, patch: Partial<Scale>) {
  void change((now) => ({
    scales: now.scales.map((scale) => (scale.id === id ? { ...scale, ...patch } : scale)),
  }))
}

type Container = Build['containers'][number]
const containers = computed(() => build.value?.containers ?? [])

function hold(id: string, patch: Partial<Container>) {
  void change((now) => ({
    containers: now.containers.map((each) => (each.id === id ? { ...each, ...patch } : each)),
  }))
}

function addContainer(mass_g: number) {
  void change(({ containers: there }) => {
    const fresh = { ...numbered('tray', 'Tray', there), mass_g }
    return { containers: [...there, fresh] }
  })
}

const BAUDS = [1200, 2400, 4800, 9600, 19200, 38400, 57600, 115200]

function add(step_g: number) {
  void change(({ scales: there }) => {
    const fresh = { ...numbered('scale', 'Scale', there), step_g }
    return { scales: [...there, fresh] }
  })
}
</script>

<template>
  <section aria-label="Scales">
    <h2>Scales</h2>
    <p class="faint small">What the display steps by, and how much it can bear.</p>
    <template v-for="scale in scales" :key="scale.id">
      <div class="scale">
        <TextCell
          :value="scale.name"
          :label="`Name of ${scale.name}`"
          @kept="set(scale.id, { name: $event })"
        />
        <span>
          steps of
          <QuantityCell
            :value="scale.step_g"
            kind="mass"
            :label="`${scale.name}, step`"
            :unit="units.mass.name"
            :base="units.mass.base"
            :digits="4"
            @kept="$event !== null && set(scale.id, { step_g: $event })"
          />
          up to
          <QuantityCell
            :value="scale.capacity_g"
            kind="mass"
            :label="`${scale.name}, capacity`"
            :unit="units.mass.name"
            :base="units.mass.base"
            @kept="$event !== null && set(scale.id, { capacity_g: $event })"
          />
          {{ units.mass.name }}
        </span>
        <span v-if="scale.simulated" class="small">simulated</span>
      </div>
      <details class="small" :open="scale.port !== ''">
        <summary>
          {{ scale.port ? `on a cable at ${scale.port}` : 'read by eye; or on a cable' }}
        </summary>
        <div class="scale">
          <label
            >port
            <TextCell
              class="figure"
              :value="scale.port"
              :label="`${scale.name}, port`"
              placeholder="/dev/ttyUSB0"
              @kept="set(scale.id, { port: $event.trim() })"
          /></label>
          <label
            >at
            <PickList
              class="figure"
              :items="asSaid(BAUDS)"
              :model-value="scale.baud"
              :aria-label="`${scale.name}, speed`"
              @update:model-value="set(scale.id, { baud: Number($event) })"
            />
            baud</label
          >
          <label
            >its lines read
            <TextCell
              class="figure"
              :value="scale.line"
              :label="`${scale.name}, lines`"
              placeholder="ST,GS,{reading} g"
              @kept="set(scale.id, { line: $event })"
          /></label>
          <span class="faint"
            >{reading} is the figure, {unit} its unit, {state} the word for steady or moving, {any}
            what does not matter</span
          >
        </div>
      </details>
      <CheckWeight :scale="scale" />
    </template>
    <OneMoreMass
      words="one more scale"
      says="it shows steps of"
      label="Steps of one more scale"
      @said="add"
    />
    <h3>Trays and cups</h3>
    <p class="faint small">
      Weigh yours empty once: a reading that forgot to tare one is then known by its gap.
    </p>
    <div v-for="each in containers" :key="each.id" class="scale">
      <TextCell
        :value="each.name"
        :label="`Name of ${each.name}`"
        @kept="hold(each.id, { name: $event })"
      />
      <QuantityCell
        :value="each.mass_g"
        kind="mass"
        :label="`${each.name}, mass`"
        :unit="units.mass.name"
        :base="units.mass.base"
        @kept="$event !== null && hold(each.id, { mass_g: $event })"
      />
      <span class="faint small">{{ units.mass.name }}</span>
      <v-verb class="small faint" @click="takeOff('containers', each.id, each.name)">
        remove
      </v-verb>
    </div>
    <OneMoreMass
      words="one more tray"
      says="empty it weighs"
      label="Mass of one more tray"
      @said="addContainer"
    />
  </section>
</template>

<style scoped>
h3 {
  margin-top: 14px;
}

.scale {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  padding: 4px 0;
  font-size: 14px;
}

.scale :deep(.cell) {
  width: 72px;
}
</style>
