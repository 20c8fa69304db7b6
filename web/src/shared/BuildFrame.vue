<script setup lang="ts">
import { computed, toRef, watchEffect } from 'vue'
import { useRoute } from 'vue-router'
import { titled } from '../router'
import PlaceLine from './PlaceLine.vue'
import SaidAloud from './SaidAloud.vue'
import TheRods from './TheRods.vue'
import { openBuild } from './useBuild'
import { usePlaceLines } from './usePlaceLines'

const props = defineProps<{ id: string }>()
const { query, build } = openBuild(toRef(props, 'id'))
const route = useRoute()
watchEffect(() => titled(String(route.name ?? ''), build.value?.name))
const { isShown } = usePlaceLines()
const gone = computed(() => query.isError.value && !build.value)
</script>

<template>
  <div v-if="build" :style="{ '--line-height': isShown ? '29px' : '0px' }">
    <TheRods />
    <PlaceLine />
    <SaidAloud />
    <router-view />
  </div>
  <div v-else-if="gone" class="blank">
    <h2>This build does not answer</h2>
    <p class="faint">
      Either it is not in this workshop, or the workshop is not running. Nothing is lost.
    </p>
    <v-btn @click="query.refetch()">Try again</v-btn>
    <v-btn to="/">To the Shed</v-btn>
  </div>
  <div v-else class="blank faint" aria-busy="true">Fetching the build from the shelf …</div>
</template>

<style scoped>
.blank {
  padding: 48px 32px;
  display: grid;
  gap: 12px;
  justify-items: start;
}
</style>
