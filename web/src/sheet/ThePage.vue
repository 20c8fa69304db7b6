<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { RefusedError } from '../api/client'
import { asPng, fileName, handOver, withType } from '../shared/picture'
import { useBuild } from '../shared/useBuild'
import { useWords } from '../shared/useWords'
import { usePaper } from './usePaper'

const { build, revision } = useBuild()
const { inFront } = usePaper()
const said = useWords()

const address = computed(() => inFront('sheet.svg'))
const page = useQuery({
  queryKey: computed(() => ['sheet', address.value, revision.value]),
  queryFn: async () => {
    const response = await fetch(address.value)
    if (!response.ok) throw new RefusedError(response.status, await response.json())
    return response.text()
  },
  placeholderData: (before) => before,
})
const drawn = computed(() => page.data.value ?? '')

const print = () => window.print()
const called = (ending: string) => fileName(build.value?.name ?? '', `sheet.${ending}`)
async function keep(way: 'svg' | 'png') {
  try {
    const picture =
      way === 'png'
        ? await asPng(drawn.value)
        : new Blob([await withType(drawn.value)], { type: 'image/svg+xml' })
    handOver(picture, called(way))
  } catch (error) {
    said.complain(error)
  }
}
</script>

<template>
  <section aria-label="The sheet">
    <p class="verbs not-printed">
      <v-btn class="press--main" :href="inFront('sheet.pdf')" target="_blank">PDF</v-btn>
      <v-btn @click="print">Print</v-btn>
      <v-btn @click="keep('svg')">SVG</v-btn>
      <v-btn @click="keep('png')">PNG</v-btn>
      <span class="faint small">of the loadout in front; key L shows another</span>
    </p>
    <p v-if="page.isError.value" class="wrong" role="alert">
      The page does not come: {{ page.error.value?.message }}
    </p>
    <p v-else-if="!drawn" class="faint" aria-busy="true">Drawing the page …</p>
    <!-- Drawn by the workshop from its own figures; every word in it is escaped there. -->
    <!-- eslint-disable vue/no-v-html -->
    <div
      v-else
      class="paper"
      tabindex="0"
      role="group"
      aria-label="The page, wider than a small screen"
      v-html="drawn"
    />
    <!-- eslint-enable vue/no-v-html -->
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 14px;
}

.verbs {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  margin: 0;
}

/* As wide as its smallest letters need; on a small screen it is looked at piece by piece. */
.paper {
  overflow-x: auto;
}

.paper > :deep(svg) {
  width: 972px;
  height: auto;
  display: block;
  border: 1px solid var(--line);
}

@media (max-width: 700px) {
  .paper > :deep(svg) {
    width: 884px;
  }
}

@media print {
  .paper {
    overflow: visible;
  }

  .paper > :deep(svg) {
    width: 100vw;
    border: 0;
  }
}
</style>
