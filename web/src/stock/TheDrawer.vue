<script setup lang="ts">
import { computed, ref } from 'vue'
import { useUnits } from '../shared/units'
import DrawerRow from './DrawerRow.vue'
import NextThing from './NextThing.vue'
import { THINGS, openDrawer } from './useDrawer'

const { drawer } = openDrawer()
const { units } = useUnits()

const sorted = computed(() =>
  THINGS.flatMap(({ value }) =>
    (drawer.data.value ?? []).filter((each) => each.thing.kind === value),
  ),
)
const wrong = ref('')
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
          <DrawerRow v-for="each in sorted" :key="each.thing.id" :each="each" />
          <NextThing v-model:wrong="wrong" />
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
</style>
