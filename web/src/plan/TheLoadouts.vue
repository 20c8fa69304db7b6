<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Build } from '../api/client'
import { once } from '../shared/once'
import TextCell from '../shared/TextCell.vue'
import { useUnits } from '../shared/units'
import { numbered } from '../shared/numbered'
import { useBuild } from '../shared/useBuild'
import FlownWith from './FlownWith.vue'
import TheseWords from '../shared/TheseWords.vue'

type Loadout = Build['loadouts'][number]

const { build, loadouts: told, change, takeOff } = useBuild()
const { quantity, exactness } = useUnits()
const name = ref('')

const options = computed(
  () => build.value?.parts.filter((part) => part.option && !part.retired) ?? [],
)
const loadouts = computed(() => build.value?.loadouts ?? [])

function set(id: string, patch: Partial<Loadout>) {
  void change((now) => ({
    loadouts: now.loadouts.map((each) => (each.id === id ? { ...each, ...patch } : each)),
  }))
}

function carry(id: string, part: string, isOn: boolean) {
  void change((now) => ({
    loadouts: now.loadouts.map((each) => {
      const others = each.carries.filter((one) => one !== part)
      return each.id === id ? { ...each, carries: isOn ? [...others, part] : others } : each
    }),
  }))
}

const add = once(async () => {
  const typed = name.value
  const given = typed.trim()
  if (!given) return
  const kept = await change(({ loadouts: there }) => {
    const { id } = numbered('loadout', '', there)
    return { loadouts: [...there, { id, name: given, carries: [] }] }
  })
  if (kept && name.value === typed) name.value = ''
})

function auw(id: string): string {
  const answer = told.value.find((each) => each.id === id)?.answers[0]
  return answer?.value == null ? '' : quantity(answer.value, 'mass', exactness(answer.sd))
}
</script>

<template>
  <section aria-label="Loadouts">
    <h2>Loadouts</h2>
    <TheseWords :of="['loadout', 'option']" />
    <FlownWith class="from" />
    <div v-for="loadout in loadouts" :key="loadout.id" class="loadout">
      <div class="title">
        <TextCell
          :value="loadout.name"
          :label="`Name of ${loadout.name}`"
          @kept="set(loadout.id, { name: $event })"
        />
        <span class="figure">{{ auw(loadout.id) }}</span>
        <v-verb class="faint" @click="takeOff('loadouts', loadout.id, loadout.name)">
          remove
        </v-verb>
      </div>
      <v-checkbox-btn
        v-for="part in options"
        :key="part.id"
        :model-value="loadout.carries.includes(part.id)"
        :label="part.name"
        @update:model-value="carry(loadout.id, part.id, $event === true)"
      />
    </div>
    <form class="add" @submit.prevent="add">
      <v-text-field
        v-model="name"
        class="entry"
        aria-label="Name of the next loadout"
        placeholder="next loadout"
        maxlength="80"
      />
      <v-verb type="submit">add <kbd>Enter</kbd></v-verb>
    </form>
  </section>
</template>

<style scoped>
section {
  max-width: 900px;
}

.from {
  margin: 10px 0 14px;
}

.loadout {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  font-size: 14px;
}

.title {
  display: flex;
  gap: 10px;
  align-items: baseline;
}

.title input {
  flex: 1;
  min-width: 0;
  font: inherit;
  font-weight: 600;
  color: inherit;
  background: none;
  border: 0;
}

.v-selection-control {
  display: inline-flex;
  margin-right: 14px;
  white-space: nowrap;
}

.add {
  display: flex;
  gap: 10px;
  margin-top: 8px;
}

.add .entry {
  flex: 1;
}
</style>
