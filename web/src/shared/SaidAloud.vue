<script setup lang="ts">
import { METRICS } from '../say/metrics'
import { nextTick, ref, watch } from 'vue'
import { useUnits } from './units'
import { useBuild } from './useBuild'
import { useVerdicts } from './verdicts'

/** What a screen reader says of a build as it changes: what was recorded, and verdicts that turned. */
const { build, loadout } = useBuild()
const { words } = useVerdicts()
const { quantity } = useUnits()
const said = ref('')

/** What comes at once is said in one breath. */
let lines: string[] = []
function say(line: string) {
  if (!lines.length)
    void nextTick(() => {
      said.value = lines.join('. ')
      lines = []
    })
  lines.push(line)
}

watch(
  () => build.value?.weighings.length ?? 0,
  (now, before) => {
    const last = build.value?.weighings.at(-1)
    if (last && now === before + 1) say(`Recorded: ${quantity(last.reading_g, 'mass')}`)
  },
)

const verdicts = () =>
  (loadout.value?.answers ?? []).map((each) => ({
    key: `${loadout.value?.id} ${each.kind}`,
    word: each.word,
    text: `${METRICS[each.kind].title}: ${words(each)}`,
  }))
watch(verdicts, (now, before) => {
  for (const each of now) {
    const was = before.find((other) => other.key === each.key)
    if (was && was.word !== each.word) say(each.text)
  }
})
</script>

<template>
  <p class="aloud" role="status">{{ said }}</p>
</template>

<style scoped>
.aloud {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
</style>
