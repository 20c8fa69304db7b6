<script setup lang="ts">
import { useKeys } from '../shared/useKeys'
import { useWords } from '../shared/useWords'
import { openBench } from './useBench'
import { useBuild } from '../shared/useBuild'
import PracticeBar from './PracticeBar.vue'
import JointClocks from './JointClocks.vue'
import ThumbBar from './ThumbBar.vue'
import ThePan from './ThePan.vue'
import TheTray from './TheTray.vue'
import TillRoll from './TillRoll.vue'
import { onMounted, ref } from 'vue'

const bench = openBench()
const { build } = useBuild()
const pan = ref<InstanceType<typeof ThePan>>()
const tray = ref<InstanceType<typeof TheTray>>()
const clocks = ref<InstanceType<typeof JointClocks>>()
const roll = ref<InstanceType<typeof TillRoll>>()
const words = useWords()

// The tray is what a hand comes for; the roll follows a frame later.
const isTrayUp = ref(false)
onMounted(() => requestAnimationFrame(() => requestAnimationFrame(() => (isTrayUp.value = true))))

useKeys({
  ' ': bench.recordSteady,
  t: bench.tare,
  n: () => void bench.putNext(),
  u: () => void bench.takeBack(),
  escape: bench.clear,
  j: () => clocks.value?.spread(),
  '/': () => tray.value?.find(),
  d: () => {
    if (!roll.value?.doubt()) words.say('No reading is doubtful.')
  },
  ...Object.fromEntries(
    [...'0123456789.,'].map((digit) => [
      digit,
      (event: KeyboardEvent) => pan.value?.type(event.key),
    ]),
  ),
})
</script>

<template>
  <div class="bench">
    <PracticeBar v-if="build?.purpose === 'practice'" class="practice" />
    <ThePan ref="pan" class="pan" />
    <TheTray ref="tray" class="tray" />
    <TillRoll v-if="isTrayUp" ref="roll" class="roll" />
    <JointClocks ref="clocks" class="clocks" />
    <ThumbBar class="thumb" />
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-columns: 392px minmax(0, 1fr) 284px;
  grid-template-rows: auto minmax(0, 1fr) auto;
  height: calc(100dvh - var(--rods-height) - var(--line-height, 0px));
  min-height: 0;
}

.pan,
.tray,
.roll {
  overflow-y: auto;
  min-height: 0;
}

.pan {
  border-right: 1px solid var(--ink);
}

.practice {
  grid-column: 1 / -1;
}

.pan,
.tray,
.roll {
  grid-row: 2;
}

.clocks {
  grid-column: 1 / -1;
  grid-row: 3;
}

.thumb {
  display: none;
}

@media (max-width: 1000px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: none;
    height: auto;
  }

  .pan,
  .tray,
  .roll,
  .clocks {
    grid-row: auto;
  }

  .pan {
    border-right: 0;
    border-bottom: 1px solid var(--ink);
  }

  .thumb {
    display: flex;
  }

  .bench {
    padding-bottom: 68px;
  }
}
</style>
