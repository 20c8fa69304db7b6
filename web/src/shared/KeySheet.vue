<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { keysOf } from '../say/keys'
import { lineOf } from '../say/places'
import { useBeginnings } from './useBeginnings'
import { useEscape } from './useEscape'
import { useSingleKeys } from './useKeys'
import { usePlaceLines } from './usePlaceLines'

const open = defineModel<boolean>({ required: true })
useEscape(open)

const route = useRoute()
const keys = computed(() => keysOf(String(route.name ?? 'shed')))
const line = computed(() => lineOf(String(route.name ?? ''), String(route.query['on'] ?? '')))
const { isShown } = usePlaceLines()
const beginnings = useBeginnings()
const single = useSingleKeys()
</script>

<template>
  <v-dialog v-model="open" max-width="480" aria-label="Keys">
    <v-sheet class="keys">
      <p v-if="line" class="faint">{{ line }}</p>
      <h2>Keys</h2>
      <v-table>
        <tbody>
          <tr v-for="[key, words] in keys" :key="key">
            <td>
              <kbd>{{ key }}</kbd>
            </td>
            <td>{{ words }}</td>
          </tr>
        </tbody>
      </v-table>
      <v-checkbox-btn
        v-model="single"
        class="small"
        label="single keys do this; without, Alt, Ctrl, Tab and every button still do"
      />
      <v-checkbox-btn
        v-model="isShown"
        class="small"
        label="each place says in a line what it is"
      />
      <p v-if="beginnings" class="faint small">Oaken Scale {{ beginnings.version }}</p>
      <v-btn autofocus @click="open = false">Close</v-btn>
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

td:first-child {
  white-space: nowrap;
}
</style>
