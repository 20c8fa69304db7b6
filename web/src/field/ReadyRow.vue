<script setup lang="ts">
import type { ReadyLine } from '../api/client'
import { useWords } from '../shared/useWords'
import { useField } from './useField'

/** One line of the list before flight: ticked by thumb, or closed by what was weighed and checked. */
defineProps<{ line: ReadyLine; title: string; why: string; caution: string }>()

const { tick, addLine, setAside } = useField()
const said = useWords()

function takeOff(line: ReadyLine) {
  setAside(line.id.slice(4), 'off the list')
  said.removed(line.subject, () => addLine(line.subject))
}

const PLACES: Partial<Record<ReadyLine['kind'], string>> = {
  weight: 'bench',
  balance: 'balance',
  doubt: 'bench',
}
</script>

<template>
  <li :class="{ done: !line.reason }">
    <button
      v-if="line.by_thumb"
      type="button"
      class="tick"
      role="checkbox"
      :aria-checked="!line.reason"
      :aria-label="title"
      @click="tick(line, line.reason !== null)"
    >
      <span aria-hidden="true">{{ line.reason ? '' : '✓' }}</span>
    </button>
    <span v-else class="tick bench" :title="line.reason ? 'open' : 'closed'">
      <span aria-hidden="true">{{ line.reason ? '' : '✓' }}</span>
    </span>
    <div class="what" @click="line.by_thumb && tick(line, line.reason !== null)">
      <strong>{{ title }}</strong>
      <span v-if="why && line.reason?.why !== 'never'" class="small wrong">{{ why }}</span>
      <span v-if="caution" class="small faint">{{ caution }}</span>
      <router-link
        v-if="!line.by_thumb && line.reason"
        class="small"
        :to="{ name: PLACES[line.kind] ?? 'bench' }"
        @click.stop
        >{{
          PLACES[line.kind] === 'balance' ? 'check it on Balance' : 'see the Bench'
        }}</router-link
      >
    </div>
    <v-verb v-if="line.kind === 'own'" class="small faint" @click="takeOff(line)">
      take off
    </v-verb>
  </li>
</template>

<style scoped>
li {
  display: flex;
  align-items: flex-start;
  gap: 8px;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}

.tick {
  flex: none;
  width: 44px;
  height: 44px;
  background: none;
  border: 0;
  padding: 6px;
  color: var(--ink);
  font-size: 20px;
  line-height: 1;
}

.tick > span {
  display: grid;
  place-items: center;
  width: 32px;
  height: 32px;
  border: 2px solid currentcolor;
  background: var(--paper);
}

button.tick {
  cursor: pointer;
}

.bench > span {
  border-style: dotted;
}

.what {
  flex: 1;
  display: grid;
  gap: 1px;
  min-height: 44px;
  align-content: center;
}

.done strong,
.done .tick {
  color: var(--faint);
}

a.small {
  color: inherit;
}
</style>
