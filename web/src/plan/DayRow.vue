<script setup lang="ts">
import { computed } from 'vue'
import { lasting, stepTitle, type Slot } from '../say/day'

/** One step of the day: what it is, its minutes on the ruler of the day, and what sets after it. */
const props = defineProps<{
  slotted: Slot
  names: string
  end: number
  doing: boolean
  taken: number
}>()
defineEmits<{ begin: []; done: []; move: [by: number]; drop: [] }>()

const title = computed(() => stepTitle(props.slotted.step))
/** A night's glue must not make all else too narrow to be seen. */
const across = (minutes: number) => `${100 * Math.min(Math.max(minutes / props.end, 0), 1)}%`
const when = computed(() => {
  const { start_min: start, step, meanwhile } = props.slotted
  const from = start < 0.5 ? 'now' : `in ${lasting(start)}`
  const sets = step.wait_min ? `; then it sets ${lasting(step.wait_min)}` : ''
  return `${from}, ${lasting(props.slotted.minutes)}${meanwhile ? ', while something sets' : ''}${sets}`
})
</script>

<template>
  <li :class="{ doing }">
    <div class="head">
      <strong>{{ title }}</strong>
      <span class="small faint">{{ when }}</span>
    </div>
    <span class="bar" aria-hidden="true"
      ><span
        class="hands"
        :style="{ left: across(slotted.start_min), width: across(slotted.minutes) }" /><span
        v-if="slotted.ready_min > slotted.end_min"
        class="sets"
        :style="{
          left: across(slotted.end_min),
          width: across(Math.min(slotted.ready_min, end) - slotted.end_min),
        }"
    /></span>
    <p v-if="names" class="small faint names">{{ names }}</p>
    <p class="acts small">
      <template v-if="doing">
        <span role="timer">{{ lasting(taken) }} so far</span>
      </template>
      <v-verb v-else @click="$emit('begin')">begin</v-verb>
      <v-verb :aria-label="`${title}: done`" @click="$emit('done')"> done </v-verb>
      <v-verb class="bare" :aria-label="`${title}: earlier`" @click="$emit('move', -1)"> ↑ </v-verb>
      <v-verb class="bare" :aria-label="`${title}: later`" @click="$emit('move', 1)"> ↓ </v-verb>
      <v-verb
        v-if="slotted.step.kind === 'own'"
        class="bare faint"
        :aria-label="`Forget ${title}`"
        @click="$emit('drop')"
      >
        ✕
      </v-verb>
    </p>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 16px;
  border-bottom: 1px solid var(--line);
  padding: 9px 0;
}

.doing {
  border-left: 4px solid var(--brass);
  padding-left: 10px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
}

.bar {
  grid-column: 1 / -1;
  position: relative;
  height: 9px;
  background: linear-gradient(var(--line), var(--line)) bottom / 100% 1px no-repeat;
}

.hands,
.sets {
  position: absolute;
  bottom: 0;
  height: 9px;
  min-width: 2px;
}

.hands {
  background: var(--oak);
}

.sets {
  background: repeating-linear-gradient(115deg, var(--tag-line) 0 2px, transparent 2px 6px);
}

.names {
  grid-column: 1 / -1;
  overflow-wrap: anywhere;
}

.acts {
  grid-column: 2;
  grid-row: 1;
  display: flex;
  gap: 10px;
  align-items: center;
}

.acts button {
  min-height: 28px;
  min-width: 28px;
}

@media (max-width: 600px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }

  .acts {
    grid-column: 1;
    grid-row: auto;
  }
}
</style>
