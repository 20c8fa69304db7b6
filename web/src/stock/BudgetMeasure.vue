<script setup lang="ts">
import type { Assessment } from '../api/client'

/** A group's mass, its doubt and what it was allotted, on one measure of all groups. */
const { line, most } = defineProps<{
  line: Assessment['budget'][number] | undefined
  /** What the whole measure bears [g]. */
  most: number
}>()
const across = (grams: number) => `${(100 * Math.max(grams, 0)) / most}%`
</script>

<template>
  <span class="measure" aria-hidden="true">
    <template v-if="line">
      <span class="mass" :style="{ width: across(line.mass_g) }" />
      <span
        class="doubt"
        :style="{ left: across(line.mass_g - 2 * line.sd_g), width: across(4 * line.sd_g) }"
      />
      <span
        v-if="line.allotted_g !== null"
        class="allotted"
        :style="{ left: across(line.allotted_g) }"
      />
    </template>
  </span>
</template>

<style scoped>
.measure {
  position: relative;
  height: 26px;
  background: linear-gradient(var(--line), var(--line)) bottom / 100% 1px no-repeat;
}

.mass {
  position: absolute;
  bottom: 0;
  height: 14px;
  background: var(--tag-line);
}

.doubt {
  position: absolute;
  bottom: 5px;
  height: 4px;
  background: var(--sea);
}

.allotted {
  position: absolute;
  bottom: 0;
  height: 24px;
  width: 4px;
  margin-left: -2px;
  background: var(--oak);
}
</style>
