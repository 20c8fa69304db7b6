<script setup lang="ts">
import { computed, ref } from 'vue'
import { useWeighNext } from '../say/weighNext'
import { useBuild } from '../shared/useBuild'
import HurtPart from './HurtPart.vue'
import RepairsAdded from './RepairsAdded.vue'
import { useRepair } from './useRepair'

const { assessment } = useBuild()
const { parts, hurt, happened, wrong, done, nameOf, isNeverMended, toggle, keep } = useRepair()
const more = ref(false)
const listed = computed(() => (more.value ? parts.value : parts.value.slice(0, 14)))

const { what } = useWeighNext()
const next = computed(() => assessment.value?.weigh_next[0])
</script>

<template>
  <section aria-label="Crash and repair">
    <h2>What was hurt?</h2>
    <p class="small faint" role="note">
      Pack out first, and away from anything that burns; a crashed or puffed one is not charged
      again. Knife: fresh blade, fingers behind it. Glue fumes: air.
    </p>
    <div class="parts">
      <button
        v-for="each in listed"
        :key="each.id"
        type="button"
        :aria-pressed="hurt.has(each.id)"
        :class="{ on: hurt.has(each.id) }"
        @click="toggle(each.id)"
      >
        {{ each.name }}
      </button>
      <button v-if="parts.length > listed.length" type="button" class="all" @click="more = true">
        {{ parts.length - listed.length }} more …
      </button>
    </div>
    <form aria-label="The repair" @submit.prevent="keep">
      <HurtPart
        v-for="[id, part] in hurt"
        :key="id"
        :name="nameOf(id)"
        :part="part"
        :never-mended="isNeverMended(id)"
      />
      <template v-if="hurt.size">
        <v-text-field
          v-model="happened"
          label="what happened"
          maxlength="200"
          autocomplete="off"
          hide-details
        />
        <p class="small faint">
          Estimates do: put each on the pan afterwards and the ledger finds the glue.
        </p>
        <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
        <v-btn class="press--main" type="submit">Write the repair down</v-btn>
      </template>
    </form>
    <p v-if="done" role="status">
      Written down. The list is open again, and the balance counts as not checked.
      <template v-if="next">
        Weigh next: <router-link :to="{ name: 'bench' }">{{ what(next) }}</router-link>.
      </template>
    </p>
    <RepairsAdded />
  </section>
</template>

<style scoped>
section,
form {
  display: grid;
  gap: 12px;
  max-width: 680px;
}

.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.parts button {
  min-height: 44px;
  padding: 4px 12px;
  font: inherit;
  color: var(--ink);
  background: var(--tag);
  border: 1px solid var(--tag-line);
  cursor: pointer;
}

.parts .all {
  background: none;
}

.parts .on {
  color: var(--linen);
  background: var(--ink);
  border-color: var(--ink);
}
</style>
