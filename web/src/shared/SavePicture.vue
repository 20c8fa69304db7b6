<script setup lang="ts">
import { asPng, fileName, handOver, standingAlone, withType } from './picture'
import { useBuild } from './useBuild'
import { useWords } from './useWords'

/** A drawing of the page, handed over as a file: what holds it, and what it is of. */
const props = defineProps<{ of: HTMLElement | undefined; what: string }>()
const { build } = useBuild()
const said = useWords()

async function keep(way: 'svg' | 'png') {
  const drawing = props.of?.querySelector('svg')
  if (!drawing) return
  try {
    const alone = standingAlone(drawing)
    const picture =
      way === 'png'
        ? await asPng(alone)
        : new Blob([await withType(alone)], { type: 'image/svg+xml' })
    handOver(picture, fileName(build.value?.name ?? '', `${props.what}.${way}`))
  } catch (error) {
    said.complain(error)
  }
}
</script>

<template>
  <p class="small faint picture not-printed">
    picture:
    <v-verb
      v-for="way in ['svg', 'png'] as const"
      :key="way"
      :aria-label="`${what} as ${way.toUpperCase()}`"
      @click="keep(way)"
    >
      {{ way.toUpperCase() }}
    </v-verb>
  </p>
</template>

<style scoped>
.picture {
  display: flex;
  gap: 10px;
  justify-content: flex-end;
  align-items: center;
  margin: 0;
}
</style>
