<script setup lang="ts">
import { useEscape } from '../shared/useEscape'

const open = defineModel<boolean>({ required: true })
useEscape(open)

const KEYS = [
  ['Space', 'record the steady reading'],
  ['0 to 9', 'type a reading; Enter records it'],
  ['T', 'tare: zero the scale with what is on it'],
  ['N', 'put “weigh next” on the pan'],
  ['/', 'find a part'],
  ['U', 'take back the last reading (it is set aside, never deleted)'],
  ['D', 'go to the next doubtful reading; Enter puts it right'],
  ['Esc', 'clear the pan'],
  ['J', 'start the clock of a joint that was just spread'],
  ['L', 'next loadout'],
  ['Alt 1 to 5', 'Shed, Plan, Stock, Bench, Balance (on other places without Alt)'],
]
</script>

<template>
  <v-dialog v-model="open" max-width="480">
    <v-sheet class="keys" aria-label="Keys">
      <h2>Keys</h2>
      <table>
        <tbody>
          <tr v-for="[key, words] in KEYS" :key="key">
            <td>
              <kbd>{{ key }}</kbd>
            </td>
            <td>{{ words }}</td>
          </tr>
        </tbody>
      </table>
      <v-btn @click="open = false">Back to the bench</v-btn>
    </v-sheet>
  </v-dialog>
</template>

<style scoped>
.keys {
  padding: 20px 24px;
  display: grid;
  gap: 14px;
  justify-items: start;
}

td {
  padding: 4px 14px 4px 0;
  vertical-align: top;
}
</style>
