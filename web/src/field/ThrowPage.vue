<script setup lang="ts">
import { computed } from 'vue'
import { SEEN, useFieldWords } from '../say/field'
import { plainly } from '../shared/units'
import ThrowPlot from './ThrowPlot.vue'
import { useField } from './useField'

/** The page of throws: how far each setting went, and every throw, the newest first. */
const { throws, setAside } = useField()
const words = useFieldWords()

const rows = computed(() =>
  [...throws.value]
    .map((each, k) => ({ ...each, number: k + 1 }))
    .reverse()
    .slice(0, 30),
)
</script>

<template>
  <section aria-label="Throws">
    <ThrowPlot />
    <h3 v-if="rows.length">The page</h3>
    <ol aria-label="Throws, newest first" reversed>
      <li v-for="each in rows" :key="each.id" :class="{ gone: each.set_aside, waits: each.waits }">
        <span class="figure faint">{{ each.number }}</span>
        <span class="did">
          {{ each.seen ? SEEN[each.seen] : '' }}
          <span v-if="each.distance_m" class="figure">{{ words.far(each.distance_m) }}</span>
          <span v-if="each.seconds" class="figure">{{ plainly(each.seconds) }} s</span>
          <span v-if="each.height_m" class="faint">{{ ` from ${words.far(each.height_m)}` }}</span>
          <span v-if="each.wind_m_s" class="faint">{{ ` wind ${words.wind(each.wind_m_s)}` }}</span>
          <span v-if="each.note" class="faint">{{ each.note }}</span>
          <small v-if="each.waits" class="sea">waits</small>
        </span>
        <v-verb
          v-if="!each.waits"
          class="small faint"
          @click="setAside(each.id, each.set_aside ? null : 'no fair throw')"
        >
          {{ each.set_aside ? 'count it again' : 'set aside' }}
        </v-verb>
      </li>
    </ol>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  min-width: 0;
}

li {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 40px;
  border-bottom: 1px solid var(--line);
}

.did {
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
}

.gone .did {
  text-decoration: line-through;
}

.sea {
  color: var(--sea);
}

li button {
  min-height: 40px;
}
</style>
