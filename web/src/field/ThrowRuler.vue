<script setup lang="ts">
import { computed } from 'vue'

/** How far it went, on a ruler that one press of a thumb answers; the arrows go on from there. */
const props = defineProps<{ value: number | null; unit: string; most: number }>()
const emit = defineEmits<{ chosen: [value: number] }>()

const step = computed(() => (props.most > 50 ? 1 : 0.5))
const ticks = computed(() =>
  Array.from({ length: props.most / 5 + 1 }, (_, k) => ({ at: 5 * k, x: (500 * k) / props.most })),
)
const to = (value: number) => Math.min(props.most, Math.max(step.value, +value.toFixed(1)))

function pressed(event: PointerEvent) {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  if (event.type === 'pointermove' && !event.buttons) return
  const share = (event.clientX - box.left) / box.width
  emit('chosen', to(Math.round((share * props.most) / step.value) * step.value))
}

function keyed(event: KeyboardEvent) {
  const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key]
  if (!by) return
  event.preventDefault()
  emit('chosen', to((props.value ?? 0) + by * step.value * (event.shiftKey ? 10 : 1)))
}
</script>

<template>
  <div
    class="ruler"
    role="slider"
    tabindex="0"
    :style="{ '--one': `${(100 / most) * (most > 50 ? 5 : 1)}%` }"
    aria-label="How far it went"
    aria-valuemin="0"
    :aria-valuemax="most"
    :aria-valuenow="value ?? 0"
    :aria-valuetext="value === null ? 'not said' : `${value} ${unit}`"
    @pointerdown="pressed"
    @pointermove="pressed"
    @keydown="keyed"
  >
    <span
      v-for="tick in ticks"
      :key="tick.at"
      class="tick figure"
      :class="{ first: tick.at === 0, last: tick.at === most }"
      :style="{ left: `${tick.x}%` }"
      >{{ tick.at }}</span
    >
    <span
      v-if="value !== null && value <= most"
      class="mark"
      :style="{ left: `${(100 * value) / most}%` }"
    />
  </div>
</template>

<style scoped>
.ruler {
  position: relative;
  height: 48px;
  touch-action: none;
  cursor: crosshair;
  border: 1px solid var(--tag-line);
  background:
    repeating-linear-gradient(to right, var(--tag-line) 0 1px, transparent 1px var(--one)) top /
      100% 8px no-repeat,
    var(--tag);
}

.tick {
  position: absolute;
  bottom: 2px;
  transform: translateX(-50%);
  font-size: 12px;
  pointer-events: none;
}

.tick::before {
  content: '';
  position: absolute;
  bottom: 100%;
  left: 50%;
  height: 14px;
  border-left: 1.5px solid var(--ink);
}

.first {
  transform: translateX(3px);
}

.last {
  transform: translateX(calc(-100% - 3px));
}

.first::before,
.last::before {
  display: none;
}

.mark {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 3px solid var(--sea);
  transform: translateX(-1.5px);
  pointer-events: none;
}
</style>
