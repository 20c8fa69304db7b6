<script setup lang="ts">
import PickList from './PickList.vue'
import { named } from './choices'
import { useScaleAtHand } from './useScaleAtHand'

/** Which scale a reading is made on; nothing where there is one. */
const { scales, scale, choose } = useScaleAtHand()
</script>

<template>
  <label v-if="scales.length > 1" class="small"
    >on
    <PickList
      :model-value="scale?.id"
      :items="named(scales)"
      aria-label="The scale it is on"
      @update:model-value="choose"
  /></label>
</template>
