<script setup lang="ts">
import { howMany } from '../say/counts'
import type { Shelved } from '../api/client'
import PlanView from '../shared/PlanView.vue'
import { useUnits } from '../shared/units'
import { isWorrying } from '../shared/verdicts'

const { build } = defineProps<{ build: Shelved; across: number }>()
defineEmits<{ shelve: []; copy: []; next: [] }>()
const { quantity, exactness } = useUnits()

const grams = (value: number) => quantity(value, 'mass', exactness(build.auw_sd_g))
</script>

<template>
  <article>
    <router-link
      class="plane"
      :to="{ name: 'bench', params: { id: build.id } }"
      :aria-label="`Open ${build.name}`"
    >
      <PlanView :outlines="build.outlines" :across="across" upright />
    </router-link>
    <div class="board" />
    <div class="tag">
      <router-link :to="{ name: 'bench', params: { id: build.id } }" class="name">{{
        build.name
      }}</router-link>
      <span v-if="build.auw_g <= 0" class="faint">no parts yet</span>
      <span v-else class="figure"
        >{{ grams(build.auw_g) }} <span class="faint">±{{ grams(2 * build.auw_sd_g) }}</span></span
      >
      <span :class="{ wrong: isWorrying(build.worst) }">{{
        build.worst ?? 'no target told yet'
      }}</span>
      <span class="faint small"
        >{{ howMany(build.readings, 'reading') }}, begun
        {{
          new Date(build.created_at).toLocaleDateString('en-GB', {
            day: 'numeric',
            month: 'short',
            year: 'numeric',
          })
        }}</span
      >
      <span class="verbs faint small">
        <a :href="`/api/v1/builds/${build.id}/file`">as a file</a>
        <v-verb
          class="bare"
          :aria-label="`Copy ${build.name} with its weighings`"
          title="With its weighings, and all that was written down"
          @click="$emit('copy')"
        >
          copy
        </v-verb>
        <v-verb
          class="bare"
          :aria-label="`Begin the next version of ${build.name}`"
          title="This plan, with what it weighs as figures, and the wishes for it"
          @click="$emit('next')"
        >
          next version
        </v-verb>
        <v-verb class="bare" @click="$emit('shelve')">
          {{ build.put_away ? 'back on the shelf' : 'put away' }}
        </v-verb>
      </span>
    </div>
  </article>
</template>

<style scoped>
article {
  display: flex;
  flex-direction: column;
  height: 100%;
}

.plane {
  height: 240px;
  padding: 8px 24px 0;
  display: flex;
  justify-content: center;
  align-items: flex-end;
}

.plane :deep(svg) {
  max-height: 100%;
  filter: drop-shadow(0 3px 2px rgb(0 0 0 / 18%));
}

.board {
  height: 14px;
  background: var(--oak);
  border-top: 2px solid var(--oak-tick);
}

.tag {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  padding: 10px 18px 26px;
}

.name {
  font-weight: 650;
  font-size: 18px;
  color: inherit;
  text-decoration: none;
}

.name:hover {
  text-decoration: underline;
}

.verbs {
  display: flex;
  align-items: center;
  gap: 12px;
  grid-column: 1 / -1;
}

.verbs a {
  color: inherit;
}

.verbs button {
  text-decoration: underline;
}
</style>
