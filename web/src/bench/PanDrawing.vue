<script setup lang="ts">
import { computed } from 'vue'
import type { Build } from '../api/client'
import { panWords } from './panWords'
import { useBench } from './useBench'

const props = defineProps<{ build: Build | undefined }>()
const { pan, tared, isEmpty } = useBench()

const heap = computed(() => Math.min(pan.value.loads.length + pan.value.samples.length, 4))
const words = computed(() => (isEmpty.value ? '' : panWords(pan.value, props.build)))
const under = computed(() =>
  tared.value.loads.length + tared.value.samples.length
    ? `tared: ${panWords(tared.value, props.build)}`
    : '',
)
</script>

<template>
  <svg viewBox="0 0 352 128" class="drawing" aria-hidden="true">
    <g class="tags">
      <path
        v-for="tag in heap"
        :key="tag"
        class="tag"
        :transform="`translate(${66 + (tag % 2) * 6} ${26 - (heap - tag) * 5})`"
        d="M10 0 H212 V30 H10 L0 22 V8 Z"
      />
      <text v-if="words" x="86" y="46">
        {{ words.length > 27 ? words.slice(0, 26) + '…' : words }}
      </text>
      <text v-else x="176" y="46" text-anchor="middle" class="hint">press a tag to put it on</text>
    </g>
    <path class="brass" d="M20 58 H332 C332 82 308 88 282 88 H70 C44 88 20 82 20 58 Z" />
    <path class="stem" d="M168 88 H184 L190 112 H162 Z" />
    <rect class="oak" x="96" y="110" width="160" height="17" />
    <line class="table" x1="0" x2="352" y1="127.5" y2="127.5" />
    <text v-if="under" x="176" y="78" text-anchor="middle" class="under">{{ under }}</text>
  </svg>
</template>

<style scoped>
.drawing {
  display: block;
  width: 100%;
  margin-top: 2px;
}

.tag {
  fill: var(--sea-wash);
  stroke: var(--ink);
  stroke-width: 1.5;
}

.brass {
  fill: var(--pan);
  stroke: var(--ink);
  stroke-width: 1.5;
}

.stem {
  fill: color-mix(in srgb, var(--pan) 80%, var(--ink));
  stroke: var(--ink);
}

.oak {
  fill: var(--oak);
  stroke: var(--ink);
}

.table {
  stroke: var(--ink);
}

text {
  font-family: var(--words);
  font-size: 14px;
  fill: var(--ink);
}

.hint {
  fill: var(--faint);
}

.under {
  font-size: 12px;
}
</style>
