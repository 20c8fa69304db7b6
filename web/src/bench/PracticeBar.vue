<script setup lang="ts">
import { ref } from 'vue'
import { answered, api, type Truth } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { useEscape } from '../shared/useEscape'
import { useUnits } from '../shared/units'
import { useWords } from '../shared/useWords'

const { id, nameOf } = useBuild()
const { number, units } = useUnits()
const words = useWords()
const truth = ref<Truth>()
const open = ref(false)
useEscape(open)

async function show() {
  try {
    truth.value = await answered<Truth>(
      api.GET('/api/v1/builds/{build_id}/truth', { params: { path: { build_id: id.value } } }),
    )
    open.value = true
  } catch (error) {
    words.complain(error)
  }
}

function isWithin(estimate: number, sd: number, right: number): boolean {
  return Math.abs(estimate - right) <= 2 * sd
}
</script>

<template>
  <div class="bar small">
    <strong>Practice.</strong> One reading on the roll is wrong: find it. Then settle the targets in
    as few weighings as you can; N and Space will do.
    <v-verb @click="show">show the truth</v-verb>
    <v-dialog v-model="open" aria-label="The truth" max-width="640">
      <v-sheet v-if="truth" class="sheet">
        <h2>The truth beside the estimate</h2>
        <p>
          All-up weight <strong class="figure">{{ number(truth.auw_g, 'mass') }}</strong>
          <span class="figure faint"> ±{{ number(2 * truth.auw_sd_g, 'mass') }}</span
          >, in truth
          <strong class="figure">{{ number(truth.auw_true_g, 'mass') }}</strong>
          {{ units.mass.name }}. {{ truth.settled }} of {{ truth.targets }} targets settled in
          {{ truth.weighed }} weighings.
        </p>
        <p v-for="each in truth.wrong" :key="each.weighing">
          {{ each.set_aside ? 'Found' : 'Still speaking' }}: a reading of
          <span class="figure">{{ number(each.reading_g, 'mass') }}</span> where
          <span class="figure">{{ number(each.true_g, 'mass') }}</span> {{ units.mass.name }} lay on
          the pan.
        </p>
        <div
          class="wide"
          tabindex="0"
          role="group"
          aria-label="A table, wider than the screen perhaps"
        >
          <v-table class="lined">
            <thead class="faint">
              <tr>
                <th>part</th>
                <th class="right">estimate</th>
                <th class="right">truth</th>
                <th />
              </tr>
            </thead>
            <tbody>
              <tr v-for="each in truth.parts" :key="each.part">
                <td>{{ nameOf(each.part) }}</td>
                <td class="figure right">
                  {{ number(each.estimate_g, 'mass') }}
                  <span class="faint">±{{ number(2 * each.sd_g, 'mass') }}</span>
                </td>
                <td class="figure right">{{ number(each.true_g, 'mass') }}</td>
                <td class="small wrong">
                  {{ isWithin(each.estimate_g, each.sd_g, each.true_g) ? '' : 'outside' }}
                </td>
              </tr>
            </tbody>
          </v-table>
        </div>
        <v-btn @click="open = false">Back to the bench</v-btn>
      </v-sheet>
    </v-dialog>
  </div>
</template>

<style scoped>
.bar {
  background: var(--sea-wash);
  border-bottom: 1px solid var(--ink);
  padding: 5px 20px;
}

.sheet {
  padding: 20px 24px;
  display: grid;
  gap: 10px;
  max-height: 86vh;
  overflow-y: auto;
  justify-items: start;
}

.wide {
  width: 100%;
}
</style>
